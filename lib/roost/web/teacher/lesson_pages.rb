# frozen_string_literal: true

require "securerandom"

module Roost
  module Web
    # What the pages about one lesson share: finding it, changing it, taking in files.
    module LessonPages
      def lessons = Store::Lessons.new

      def sharing = Store::Sharing.new

      # The lesson in the address; not found unless this teacher may edit it.
      def lesson
        row = lessons.find(account_id, number("id"))
        row && !row.deleted ? row : not_found
      end

      # The lesson in the address; not found unless this teacher may look at it.
      def looked_at = lessons.look(account_id, number("id")) || not_found

      def entry = Store::Catalogue.new.entry(account_id, number("id")) || not_found

      def new_id = SecureRandom.alphanumeric(10)

      def gone = Core::Reading.refused(Operations::EditSlide::GONE)

      # Files sent under a name, one or several.
      # @return [Array<Hash>] :tempfile and :filename, at least one
      def uploads(name)
        files = [params[name]].flatten.select { |file| file.is_a?(Hash) && file[:tempfile] }
        files.empty? ? halt(refuse("Choose a file first.")) : files
      end

      def keep_picture(file) = Operations::KeepPicture.new.call(account_id, file[:tempfile], file[:filename])

      # Pictures that were sent with a form, or before it and are only named now.
      # @return [Array<Array(Core::Picture, String)>] with the names of their files, at least one
      def sent_pictures
        held = Array(params["held"]).zip(Array(params["held_names"]))
        return held.map { |file, name| [held_picture(file), name.to_s] } if held.any?

        uploads("pictures").map { |file| [granted(keep_picture(file)), file[:filename].to_s] }
      end

      # @return [Hash{String=>Core::Picture}] by the id of their option
      def option_pictures
        held = params["held_options"]
        return held.transform_values { |file| held_picture(file) } if held.is_a?(Hash)

        sent = params["pictures"].is_a?(Hash) ? params["pictures"] : {}
        sent.select { |_, file| file.is_a?(Hash) && file[:tempfile] }.transform_values { |file| granted(keep_picture(file)) }
      end

      def held_picture(file)
        (file.is_a?(String) && Store::Media.new.picture(file)) || halt(refuse("Choose that picture again."))
      end

      def change_lesson(&block) = Operations::ChangeLesson.new.call(account_id, number("id"), &block)

      def lesson_path(id, **query)
        query = query.compact
        "/lessons/#{id}#{"?#{URI.encode_www_form(query)}" if query.any?}"
      end
    end
  end
end
