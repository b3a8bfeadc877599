# frozen_string_literal: true

module Roost
  module Store
    # That a seat was told how it went with a question, or what is right there: it settles that question and attempt
    # (Core::Session::Acceptance).
    class Tellings < Repository
      # Notes what a seat is about to be told; the first time is the one that counts.
      # @param slide_ids [Array<String>]
      def note(seat_id, slide_ids, attempt)
        return if slide_ids.empty?

        rows = slide_ids.map { |slide_id| [seat_id, slide_id, attempt] }
        database[:tellings].insert_conflict.import(%i[seat_id slide_id attempt], rows)
      end

      # What a seat was told since then settles nothing.
      # @param since [Float] epoch seconds
      def forget(seat_id, attempt, since:)
        database[:tellings].where(seat_id: seat_id, attempt: attempt)
                           .where(Sequel[:told_at] >= Sequel.function(:to_timestamp, since)).delete
      end

      # @return [Hash{Integer=>Integer}] seat id to of how many answers it was told, in its last attempt of which it was
      def counts(session_id)
        of_session = database[:tellings].join(:seats, id: :seat_id).where(session_id: session_id)
        of_session.group(:seat_id, :attempt).order(:attempt).select(:seat_id, Sequel.function(:count).*.as(:many))
                  .as_hash(:seat_id, :many)
      end

      # @return [Array<String>] ids of the slides of which a seat was told in an attempt
      def of(seat_id, attempt) = database[:tellings].where(seat_id: seat_id, attempt: attempt).select_map(:slide_id)
    end
  end
end
