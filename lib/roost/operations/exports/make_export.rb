# frozen_string_literal: true

module Roost
  module Operations
    # Makes a file in the background, where that takes longer than a page may. What is made says a class of its own.
    class MakeExport
      # At a time for one teacher, so that those of others are not kept waiting.
      MOST = 4
      WAIT = "Four files are being made for you already. Wait until one of them is there."

      # By kind, what makes it: #subject(account_id, id) says whether somebody may have it, #file(subject) gives its content and
      # says how far it is.
      MAKERS = { "session_xlsx" => "SessionWorkbook", "session_pdf" => "SessionPaper", "session_letter" => "SessionLetter",
                 "seat_pdf" => "SeatPaper", "student_json" => "StudentJson", "student_pdf" => "StudentPdf",
                 "class_passes" => "ClassPasses" }.freeze

      # @param kind [String]
      # @return [Object] what makes it
      def self.maker(kind) = Operations.const_get(MAKERS.fetch(kind)).new

      # Leaves it to the background.
      # @param kind [String] one of MAKERS
      # @return [Core::Reading, nil] nil when she has no such thing
      def start(account_id, kind, subject_id)
        return nil unless MakeExport.maker(kind).subject(account_id, subject_id)
        return Core::Reading.ok(nil) if exports.of(account_id, kind, subject_id)&.making?
        return Core::Reading.refused(WAIT) if exports.making(account_id) >= MOST

        exports.transaction do
          id = exports.begin_one(account_id, kind, subject_id)
          Store::Background.new.later("make_export", id) if id
        end
        Core::Reading.ok(nil)
      end

      # @param id [Integer] of an export
      def call(id)
        export = exports.find(id)
        return unless export&.making?

        maker = MakeExport.maker(export.kind)
        subject = maker.subject(export.account_id, export.subject_id)
        content = subject && maker.file(subject) { |done, parts| exports.update(id, done: done, parts: parts) }
        return give_up(id) unless content

        File.open(exports.path(id), "wb", 0o600) { |file| file.write(content) }
        exports.update(id, state: "ready")
      end

      def give_up(id) = exports.update(id, state: "failed")

      private

      def exports = @exports ||= Store::Exports.new
    end
  end
end
