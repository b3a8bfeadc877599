# frozen_string_literal: true

module Roost
  module Operations
    # What one seat gave to one question, of several attempts in the one that counts.
    class ValueGiven
      # @param row [Store::Sessions::Row]
      # @return [Hash, nil] nil where nothing was given that can be read
      def call(row, slide_id, seat_id)
        return Store::Answers.new.value(row.id, slide_id, seat_id) unless row.self_paced

        answer = Store::Records.new.at_seat(row, seat_id).answer(slide_id, seat_id)
        answer.value if answer&.readable?
      end
    end
  end
end
