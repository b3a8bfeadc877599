# frozen_string_literal: true

require "stringio"

module Roost
  module Operations
    # Brings a list of students into a class in two steps: it is looked at, row by row, and nothing is
    # saved; then what was seen is done, all of it or nothing. The same list again changes nothing.
    class FillClass
      GONE = "That list isn't waiting here any more. Look at the class, or give the list again."
      FULL = "A class has at most #{Core::ClassList::MOST} students here, and these would make it %d.".freeze

      # What a list would do; ticket:: with which it can be done
      Look = Struct.new(:difference, :ticket, keyword_init: true)

      # @param text [String] a name a line
      # @return [Core::Reading, nil] of Look; nil unless she teaches the class
      def look_at_text(account_id, class_id, text)
        return nil unless Store::Classes.new.find(account_id, class_id)

        Core::ClassList.paste(text).map { |entries| look(account_id, class_id, entries, StringIO.new(text)) }
      end

      # @param file [File] a sheet
      # @return [Core::Reading, nil] as above; refused in words that go on after the file's name
      def look_at_sheet(account_id, class_id, file)
        return nil unless Store::Classes.new.find(account_id, class_id)

        Exchange::ClassSheet.read(file.path).map { |entries| look(account_id, class_id, entries, file) }
      end

      # @param ticket [String] of Look
      # @param sheet [Boolean] whether it is one
      # @param apart [Array<Integer>] rows that are not the person of that name in another class
      # @return [Core::Reading, nil] of the ClassListDifference that was carried out; nil unless she teaches the class
      def call(account_id, class_id, ticket, sheet:, apart: [])
        return nil unless Store::Classes.new.find(account_id, class_id)

        taken = Store::PendingUploads.new.take(account_id, ticket) do |path|
          entries = sheet ? Exchange::ClassSheet.read(path) : Core::ClassList.paste(File.binread(path))
          entries.and_then { |each| fill(account_id, class_id, each, apart: apart) }
        end
        taken || Core::Reading.refused(GONE)
      end

      # The same with a list that is at hand, unseen.
      # @param entries [Array<Core::ClassList::Entry>]
      def fill(account_id, class_id, entries, apart: [])
        classes = Store::Classes.new
        classes.transaction { carry_out(account_id, class_id, entries, apart) if classes.find(account_id, class_id, lock: true) }
      end

      private

      def look(account_id, class_id, entries, io)
        Look.new(difference: difference(account_id, class_id, entries),
                 ticket: Store::PendingUploads.new.keep(account_id, io)).freeze
      end

      def difference(account_id, class_id, entries, apart: [])
        students = Store::Students.new
        Core::ClassListDifference.new(entries, present: students.of_class(class_id), apart: apart,
                                               known: students.known(account_id, but: class_id))
      end

      def carry_out(account_id, class_id, entries, apart)
        found = difference(account_id, class_id, entries, apart: apart)
        students = Store::Students.new
        many = students.of_class(class_id).length + found.of(:new).length + found.of(:enters).length
        return Core::Reading.refused(format(FULL, many)) if many > Core::ClassList::MOST

        Enrol.new.call(account_id, class_id, found)
        Core::Reading.ok(found)
      end
    end
  end
end
