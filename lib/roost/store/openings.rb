# frozen_string_literal: true

module Roost
  module Store
    # When questions were open, a row each attempt. Read together with their session.
    class Openings < Repository
      # Of the sessions that are read, as one value each: slide, and the members of Core::Session::Opening.
      OF_SESSION = Sequel.lit(<<~SQL)
        (SELECT jsonb_agg(jsonb_build_array(slide_id, attempt, date_part('epoch', opened_at), date_part('epoch', clock_at),
                                            date_part('epoch', deadline), date_part('epoch', most_at),
                                            date_part('epoch', closed_at), date_part('epoch', told_at),
                                            date_part('epoch', key_at)) ORDER BY slide_id, attempt)
         FROM openings WHERE session_id = sessions.id)
      SQL

      COLUMNS = Core::Session::Opening.members
      KEEP = begin
        times = COLUMNS - [:attempt]
        <<~SQL.freeze
          INSERT INTO openings (session_id, slide_id, #{COLUMNS.join(", ")})
          SELECT ?, slide_id, #{COLUMNS.map { |name| name == :attempt ? name : "to_timestamp(#{name})" }.join(", ")}
          FROM unnest(?::text[], #{COLUMNS.map { |name| "?::#{name == :attempt ? "int" : "float"}[]" }.join(", ")})
            AS given(slide_id, #{COLUMNS.join(", ")})
          ON CONFLICT (session_id, slide_id, attempt) DO UPDATE SET #{times.map { |name| "#{name} = EXCLUDED.#{name}" }.join(", ")}
        SQL
      end
      private_constant :COLUMNS, :KEEP

      # @param rows [Array<Array>, nil] as OF_SESSION gives them
      # @return [Hash{String=>Array<Core::Session::Opening>}] by slide id
      def self.read(rows)
        found = rows.to_a.group_by(&:first).transform_values do |of_slide|
          of_slide.map { |_slide, *fields| Core::Session::Opening.of(fields) }.freeze
        end
        found.freeze
      end

      # Keeps what differs from what was there before.
      # @param before [Hash{String=>Array<Core::Session::Opening>}]
      # @param now [Hash{String=>Array<Core::Session::Opening>}]
      # @param teams [Boolean] whether the session has any
      def keep(session_id, before, now, teams: true)
        changed = now.flat_map { |slide_id, all| (all - before.fetch(slide_id, [])).map { |opening| [slide_id, opening] } }
        write(session_id, changed) if changed.any?
        return unless teams

        changed.each do |slide_id, opening|
          fresh = before.fetch(slide_id, []).none? { |other| other.attempt == opening.attempt }
          Teams.new(database).keep_opening(session_id, slide_id, opening.attempt) if fresh
        end
      end

      # The room saw what was right after each question, for demo data.
      def tell_all(session_id)
        closed = Sequel.lit("closed_at + interval '1 second'")
        database[:openings].where(session_id: session_id).exclude(closed_at: nil).update(told_at: closed, key_at: closed)
      end

      # Puts the beginning and the end of all openings of an assignment elsewhere.
      # @param opened_at [Float] epoch seconds
      # @param deadline [Float] likewise
      def move_all(session_id, opened_at, deadline)
        opened, ends = [opened_at, deadline].map { |time| Sequel.function(:to_timestamp, time) }
        database[:openings].where(session_id: session_id).update(opened_at: opened, deadline: ends, closed_at: nil)
      end

      private

      # @param openings [Array<Array(String, Core::Session::Opening)>] each with its slide
      def write(session_id, openings)
        slides = openings.map(&:first)
        columns = Core::Session::Opening.members.map { |member| openings.map { |_, opening| opening[member] } }
        prepared(:keep_openings) { database[KEEP, :$session_id, :$slides, *COLUMNS.map { |name| :"$#{name}" }] }
          .call(session_id: session_id, slides: Sequel.pg_array(slides),
                **COLUMNS.zip(columns).to_h { |name, values| [name, Sequel.pg_array(values)] })
      end
    end
  end
end
