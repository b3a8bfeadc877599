# frozen_string_literal: true

module Roost
  module Core
    module Session
      # What all gave to one question in one attempt, as it is looked back on: what many gave alike is one Answer, without seat,
      # time, arrival and save, until somebody asks for each one's own.
      class AnswerSet
        # answer:: what is the same in all; seats:: Seats with the times they came; arrivals, saves:: texts, as those of Seats
        Alike = Struct.new(:answer, :seats, :arrivals, :saves)

        # Seats with a time each, read only as far as somebody asks: ids and times come as texts with commas between.
        class Seats
          # @param ids [String]
          # @param times [String] epoch seconds
          def initialize(ids, times)
            @ids = ids
            @times = times
          end

          # @yieldparam seat_id [Integer]
          def each_key(&block) = keys.each(&block)

          # @return [Hash{Integer=>Float}] seat id to epoch seconds
          def to_h = @to_h ||= keys.zip(@times.split(",").map(&:to_f)).to_h

          def [](seat_id) = to_h[seat_id]

          def key?(seat_id) = (@known ||= keys.to_h { |id| [id, true] }).key?(seat_id)

          private

          def keys = @keys ||= @ids.split(",").map(&:to_i)
        end

        # @param answers [AnswerSet, Hash{Integer=>Answer}]
        # @return [Array<Array(Answer, Seats)>] answers with the seats that gave them and when they came; of those in a Hash
        #   each stands alone, with a Hash
        def self.alike(answers)
          answers.is_a?(Hash) ? answers.map { |seat_id, answer| [answer, { seat_id => answer.received_at }] } : answers.alike
        end

        # @param groups [Array<Alike>]
        def initialize(groups)
          @groups = groups
        end

        def alike = @groups.map { |group| [group.answer, group.seats] }

        # @yieldparam seat_id [Integer]
        def each_key(&block) = @groups.each { |group| group.seats.each_key(&block) }

        # @return [Hash{Integer=>Answer}] seat id to its own
        def to_h = @to_h ||= @groups.each_with_object({}) { |group, all| spread(group, all) }

        private

        def spread(group, all)
          arrivals = group.arrivals.split(",")
          saves = group.saves.split(",")
          group.seats.to_h.each_with_index do |(seat_id, time), at|
            all[seat_id] = group.answer.dup.tap do |own|
              own.seat_id = seat_id
              own.arrival = arrivals[at].to_i
              own.save_id = saves[at]
              own.received_at = time
            end.freeze
          end
        end
      end
    end
  end
end
