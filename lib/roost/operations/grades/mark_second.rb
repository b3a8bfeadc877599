# frozen_string_literal: true

module Roost
  module Operations
    # A colleague marks the same answers, without the names of who gave them, so that two who mark can be compared.
    class MarkSecond
      UNKNOWN = "No teacher here has that address."
      OWN = "These are your own answers to mark already."

      # Asks a colleague to mark a question.
      # @return [Core::Reading, nil] of their account id; nil when she has no such session or question
      def ask(account_id, session_id, slide_id, email)
        return nil unless question(Store::Sessions.new.of_teacher(account_id, session_id), slide_id)

        colleague = Store::Accounts.new.id_of(email.to_s.strip)
        return Core::Reading.refused(UNKNOWN) unless colleague
        return Core::Reading.refused(OWN) if colleague == account_id

        Store::SecondMarks.new.ask(session_id, slide_id, colleague)
        Core::Reading.ok(colleague)
      end

      # @return [Integer, nil] nil when she has no such session
      def ask_no_more(account_id, session_id, slide_id, colleague)
        return nil unless Store::Sessions.new.of_teacher(account_id, session_id)

        Store::SecondMarks.new.ask_no_more(session_id, slide_id, colleague)
      end

      # What somebody was asked to mark.
      # @return [Array(Store::Sessions::Row, Core::Slide), nil] nil when nobody has asked them
      def asked(account_id, session_id, slide_id)
        return nil unless Store::SecondMarks.new.asked?(session_id, slide_id, account_id)

        row = Store::Sessions.new.find(session_id)
        slide = question(row, slide_id) unless row&.deleted
        [row, slide] if slide
      end

      # @param given [Hash{Integer=>String}] as MarkByHand#call
      # @return [Core::Reading, nil] of what there was before, as `given`; nil when nobody has asked them
      def call(account_id, session_id, slide_id, given)
        row, slide = asked(account_id, session_id, slide_id)
        return nil unless slide

        kept = Store::SecondMarks.new
        before = kept.of(row.id, slide.id, account_id)
        MarkByHand.keep(given, Store::Records.new.of(row, roll: []), slide, before: before) do |marks|
          kept.put(row.id, slide.id, marks, account_id: account_id)
        end
      end

      private

      def question(row, slide_id)
        slide = row && Store::Sessions.new.lesson_of(row).slide(slide_id)
        slide if slide&.prompt
      end
    end
  end
end
