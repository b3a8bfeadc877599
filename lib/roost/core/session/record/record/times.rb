# frozen_string_literal: true

module Roost
  module Core
    module Session
      class Record
        # When seats were sent each question, and how long they took.
        module Times
          # How long each took for their answer to a question that counts, as far as it is known when it was shown.
          # @return [Hash{Integer=>Float}] seat id to seconds
          def seconds(slide_id)
            once(:seconds, slide_id) { set_aside?(slide_id) ? NONE : taken(slide_id) }
          end

          # When a seat was sent a question; with a keypad, when it was put on the wall.
          # @param attempt [Integer, nil] nil for the one that counts
          # @return [Float, nil] nil when it never was
          def shown_at(slide_id, seat_id, attempt: nil)
            sent = attempt ? @given.shown.fetch([slide_id, attempt], NONE) : shown_to(slide_id)
            sent[seat_id] || on_wall(slide_id, seat_id, attempt)
          end

          # @return [Hash{Integer=>Float}, AnswerSet::Seats] seat id to when the question was sent to its device
          def shown_to(slide_id) = once(:shown_to, slide_id) { counting(shown, slide_id) }

          private

          def taken(slide_id)
            times = {}
            each_alike(slide_id) do |_answer, seats, worth|
              next if worth.nil? || worth.blank

              seats.to_h.each do |id, received_at|
                shown_at = shown_at(slide_id, id)
                times[id] = scoring(slide_id, id).seconds(received_at, shown_at) if shown_at
              end
            end
            times
          end

          def shown?(slide_id, seat_id) = shown_to(slide_id).key?(seat_id) || !on_wall(slide_id, seat_id).nil?

          def on_wall(slide_id, seat_id, attempt = nil)
            keypad = seat(seat_id)
            opening(slide_id, attempt)&.seen_on_wall_at(keypad.came_at) if keypad&.keypad && rules.keypads_see_wall?
          end
        end
      end
    end
  end
end
