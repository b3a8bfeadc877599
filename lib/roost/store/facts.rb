# frozen_string_literal: true

module Roost
  module Store
    # What was done about the questions of a session (Core::Session::Facts), in rows of their own. Read together with the session.
    class Facts < Repository
      # Of the sessions that are read, as one document.
      OF_SESSION = Sequel.lit(<<~SQL)
        jsonb_build_object(
          'openings', #{Openings::OF_SESSION},
          'set_aside', (SELECT jsonb_agg(slide_id ORDER BY at) FROM questions_set_aside WHERE session_id = sessions.id),
          'curated', (SELECT jsonb_object_agg(slide_id, jsonb_build_object('removed', removed, 'approved', approved, 'pinned', pinned,
                                                                          'columns', columns, 'own', own))
                      FROM curations WHERE session_id = sessions.id),
          'plays', (SELECT jsonb_agg(jsonb_build_array(section_id, number, slide_ids, style, speed, goal, answering, talk,
                                                       date_part('epoch', began_at)) ORDER BY section_id, number)
                    FROM round_plays WHERE session_id = sessions.id),
          'pairs', (SELECT jsonb_agg(groups ORDER BY number) FROM pair_rounds WHERE session_id = sessions.id))
      SQL

      # @param document [Hash] as OF_SESSION gives it
      # @return [Core::Session::Facts]
      def self.read(document)
        curated = document["curated"].to_h.transform_values { |each| Core::Session::Curation.from_document(each) }
        Core::Session::Facts.of(openings: Openings.read(document["openings"]), set_aside: document["set_aside"].to_a,
                                curated: curated, pairs: document["pairs"].to_a, plays: plays(document["plays"].to_a))
      end

      # @param rows [Array<Array>] as OF_SESSION gives them
      # @return [Hash{String=>Array<Core::Session::Play>}] by section
      def self.plays(rows)
        fields = %i[section_id number slide_ids style speed goal answering talk began_at]
        all = rows.map { |row| Core::Session::Play.new(**fields.zip(row).to_h).freeze }
        all.group_by(&:section_id).transform_values(&:freeze)
      end
      private_class_method :plays

      # Keeps what differs from what was there before, but for openings (Openings::KEEP).
      # @param before [Core::Session::Facts]
      # @param now [Core::Session::Facts]
      # @param teams [Boolean] whether the session has any
      def keep(session_id, before, now, teams:)
        return if now.equal?(before)

        Openings.new(database).keep_teams(session_id, before.openings, now.openings) if teams
        keep_set_aside(session_id, before.set_aside, now.set_aside)
        keep_curated(session_id, before.curated, now.curated)
        keep_pairs(session_id, before.pairs.length, now.pairs)
        keep_plays(session_id, now.plays.values.flatten - before.plays.values.flatten)
      end

      private

      def keep_set_aside(session_id, before, now)
        counted = before - now
        database[:questions_set_aside].where(session_id: session_id, slide_id: counted).delete if counted.any?
        (now - before).each do |slide_id|
          database[:questions_set_aside].insert_conflict.insert(session_id: session_id, slide_id: slide_id)
        end
      end

      def keep_curated(session_id, before, now)
        now.each do |slide_id, curation|
          next if before[slide_id] == curation

          lists = curation.to_h.slice(:removed, :approved, :pinned).transform_values { |list| Sequel.pg_array(list, :text) }
          rest = { columns: Sequel.pg_jsonb(curation.columns), own: Sequel.pg_jsonb(curation.own),
                   at: Sequel.function(:clock_timestamp) }
          database[:curations].insert_conflict(target: %i[session_id slide_id], update: { **lists, **rest })
                              .insert(session_id: session_id, slide_id: slide_id, **lists, **rest)
        end
      end

      def keep_plays(session_id, plays)
        plays.each do |play|
          database[:round_plays].insert(session_id: session_id, **play.to_h, slide_ids: Sequel.pg_array(play.slide_ids, :text),
                                        began_at: Sequel.function(:to_timestamp, play.began_at))
        end
      end

      def keep_pairs(session_id, known, rounds)
        rounds.drop(known).each_with_index do |groups, place|
          database[:pair_rounds].insert(session_id: session_id, number: known + place + 1, groups: Sequel.pg_jsonb(groups))
        end
      end
    end
  end
end
