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
                                            date_part('epoch', key_at), play) ORDER BY slide_id, attempt)
         FROM openings WHERE session_id = sessions.id)
      SQL

      # What of an opening is kept, each as an Array of that of several, and where it stands in KEEP.
      KEPT = [:slide_id, *Core::Session::Opening.members].freeze
      PLACES = %i[id].concat(KEPT).map { |name| :"$#{name}" }.freeze
      KEEP = begin
        times = KEPT - %i[slide_id attempt play]
        arrays = KEPT.map { |name| "?::#{{ slide_id: "text", attempt: "int", play: "int" }.fetch(name, "float")}[]" }
        <<~SQL.freeze
          INSERT INTO openings (session_id, #{KEPT.join(", ")})
          SELECT ?, slide_id, attempt, #{times.map { |name| "to_timestamp(#{name})" }.join(", ")}, play
          FROM unnest(#{arrays.join(", ")}) AS given(#{KEPT.join(", ")})
          ON CONFLICT (session_id, slide_id, attempt) DO UPDATE SET #{times.map { |name| "#{name} = EXCLUDED.#{name}" }.join(", ")}
        SQL
      end

      # @param rows [Array<Array>, nil] as OF_SESSION gives them
      # @return [Hash{String=>Array<Core::Session::Opening>}] by slide id
      def self.read(rows)
        found = rows.to_a.group_by(&:first).transform_values do |of_slide|
          of_slide.map { |_slide, *fields| Core::Session::Opening.of(fields) }.freeze
        end
        found.freeze
      end

      # What differs from what was there before, for KEEP.
      # @param before [Hash{String=>Array<Core::Session::Opening>}]
      # @param now [Hash{String=>Array<Core::Session::Opening>}]
      # @return [Hash{Symbol=>Array}] by KEPT
      def self.changed(before, now)
        changed = now.flat_map { |slide_id, all| (all - before.fetch(slide_id, [])).map { |opening| [slide_id, *opening.to_a] } }
        KEPT.zip(changed.empty? ? Array.new(KEPT.length) { [] } : changed.transpose)
            .to_h { |name, values| [name, Sequel.pg_array(values)] }
      end

      # Those of a session that has just been made.
      # @param now [Hash{String=>Array<Core::Session::Opening>}]
      def begin(session_id, now)
        prepared(:keep_openings) { database[KEEP, *PLACES] }.call(id: session_id, **Openings.changed({}, now))
      end

      # Keeps who was in which team when a question opened, of those that did.
      def keep_teams(session_id, before, now)
        fresh = now.flat_map do |slide_id, all|
          (all.map(&:attempt) - before.fetch(slide_id, []).map(&:attempt)).map { |attempt| [slide_id, attempt] }
        end
        fresh.each { |slide_id, attempt| Teams.new(database).keep_opening(session_id, slide_id, attempt) }
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
    end
  end
end
