# frozen_string_literal: true

require "digest"
require "securerandom"

module Roost
  module Store
    # Seats. A seat is its token: 128 random bits that only the device knows, of which
    # just the digest is kept. Presence is the key of the seat's open stream and when a
    # web process last saw it.
    class Seats < Repository
      include Presence

      # One comes in at a time, so that no more come than there is room for; what is counted is counted
      # after those before are in. One string, so that nobody waits for more than the database's own work. Their page is asked
      # for next, so that they are taken for seen; whoever looks hears of it (Live::Bus).
      ENTER = <<~SQL.freeze
        SELECT pg_advisory_xact_lock(77813, :session_id);
        WITH came AS (
          INSERT INTO seats (session_id, name, practice, student_id, time_factor, extra, device, keypad, receiver_id, number,
                             token_digest, team_id, stream_key, seen_at)
          SELECT :session_id, :name, :practice, :student_id, COALESCE((SELECT time_factor FROM students WHERE id = :student_id), 1),
                 :extra, :device, :keypad, :receiver_id, :number, :digest, COALESCE(:team_id, #{Teams::SMALLEST}),
                 :stream_key, CASE WHEN :stream_key IS NULL THEN NULL ELSE clock_timestamp() END
          WHERE (SELECT count(*) FROM seats WHERE session_id = :session_id AND removed_at IS NULL) < :room
          ON CONFLICT DO NOTHING RETURNING id)
        SELECT id, pg_notify(:channel, :notice) FROM came
      SQL
      # What a seat may have besides.
      BARE = { student_id: nil, extra: "", device: nil, keypad: nil, receiver_id: nil,
               number: nil }.freeze
      private_constant :ENTER, :BARE

      # @param room [Integer, nil] how many seats there may be; nil when that is no matter
      # @param team_id [Integer, nil] of a team of the session: where there are teams and none is named, the smallest
      # @param about [Hash] :student_id, whose it is; :extra, what was asked besides the name; :device, what the device calls
      #   itself; :keypad, the number of the handheld one it is (String); what is left out as in BARE
      # @return [Array(Integer, String), nil] id and token; nil when the name was taken meanwhile, that student or
      #   keypad sits already, or there is no room
      # @param team_order [Array<Integer>] ids of teams, those first that are preferred where they are equally small
      def create(session_id, name, practice: false, room: nil, team_id: nil, team_order: [], **about)
        token = SecureRandom.urlsafe_base64(16)
        digest = Seats.digest(token)
        row = { session_id: session_id, name: name, practice: practice, **BARE, **about }
        id = if room then enter(row, digest: digest, room: room, team_id: team_id, team_order: Seats.order(team_order))
             else database[:seats].insert_conflict.insert(**row, token_digest: digest, time_factor: factor_of(row[:student_id]),
                                                                 team_id: team_id || smallest(session_id, team_order))
             end
        id && [id, token]
      end

      # @return [Hash, nil] :id, :session_id, :name, :number and :self_paced, which says whether its session is
      def by_token(token)
        by_token = prepared(:seat_by_token) do
          self_paced = database[:sessions].where(id: Sequel[:seats][:session_id]).select(:self_paced)
          database[:seats].where(token_digest: :$digest, removed_at: nil)
                          .select(:id, :session_id, :name, :number, self_paced.as(:self_paced))
        end
        by_token.call(digest: Seats.digest(token)).first
      end

      # Whether a token is that of a seat the teacher has taken out.
      def removed?(token) = database[:seats].where(token_digest: Seats.digest(token)).exclude(removed_at: nil).any?

      # Whether a seat in a session was taken out within so many seconds.
      # @param whose [Hash] :device, :keypad or :student_id
      def sent_away?(session_id, seconds, **whose)
        return false if whose.values.none?

        lately = Sequel.lit("removed_at >= clock_timestamp() - make_interval(secs => ?)", :$seconds)
        sent = prepared([:sent_away, *whose.keys].join("_").to_sym) do
          database[:seats].where(session_id: :$session_id, **placeholders(whose.keys)).where(lately).select(:id).limit(1)
        end
        sent.call(session_id: session_id, seconds: seconds, **whose).any?
      end

      # Names that are taken, those of removed seats among them.
      # @param beginning [String] only those that begin so, in whatever case
      # @param but [Integer, nil] id of a seat that doesn't count
      def names(session_id, beginning: "", but: nil)
        low = [:name, beginning].map { |text| Sequel.function(:lower, text) }
        database[:seats].where(session_id: session_id).where(Sequel.function(:starts_with, *low)).exclude(id: but.to_i)
                        .select_map(:name)
      end

      # @return [Array<Integer>] ids of the people who sit in a session
      def people(session_id)
        database[:seats].where(session_id: session_id, removed_at: nil).exclude(student_id: nil).select_map(:student_id)
      end

      # @param student_ids [Array<Integer>]
      # @return [Hash{Integer=>Integer}] session to how many of them had a seat there and came
      def came(session_ids, student_ids)
        database[:seats].where(session_id: session_ids, student_id: student_ids, removed_at: nil).group_and_count(:session_id)
                        .as_hash(:session_id, :count)
      end

      # @return [Integer, nil] whose seat it is
      def student(seat_id) = database[:seats].where(id: seat_id).get(:student_id)

      # @param session_ids [Array<Integer>, nil] only in these; nil: in all
      # @return [Hash{Integer=>Integer}] session id to the seat that a student has there
      def of_student(student_id, session_ids = nil)
        where = { student_id: student_id, removed_at: nil, session_id: session_ids }
        database[:seats].where(session_ids ? where : where.except(:session_id)).as_hash(:session_id, :id)
      end

      # Whether a seat is in a session, and not removed.
      def in?(session_id, seat_id) = database[:seats].where(session_id: session_id, id: seat_id, removed_at: nil).any?

      # @return [Boolean] whether the name was free
      def rename(seat_id, name) = change_unless_taken(seat_id, name: name)

      # Gives a seat to another device. What waits on the earlier one is known by the token it had.
      # @return [String] the token by which it is known from now on
      def move(seat_id)
        token = SecureRandom.urlsafe_base64(16)
        transaction do
          database[:former_tokens].insert(%i[token_digest seat_id],
                                          database[:seats].where(id: seat_id).select(:token_digest, :id))
          database[:seats].where(id: seat_id).update(token_digest: Seats.digest(token))
        end
        token
      end

      # @return [Hash, nil] :id, :session_id, :name of the seat that had a token before
      def by_former_token(token)
        former = database[:former_tokens].where(token_digest: Seats.digest(token)).select(:seat_id)
        database[:seats].where(id: former, removed_at: nil).select(:id, :session_id, :name).first
      end

      # @param number [String] with which somebody comes back
      # @return [Integer, nil] id of the seat of that name and number
      def by_number(session_id, name, number)
        database[:seats].where(session_id: session_id, removed_at: nil, number: number)
                        .where(Sequel.function(:lower, :name) => name.downcase).get(:id)
      end

      # @return [String, nil] the number of a seat that was not opened by a pass
      def number(seat_id) = database[:seats].where(id: seat_id).get(:number)

      # @param device [String]
      # @return [Array<String>] names of the seats that a device has in a session
      def names_on(session_id, device)
        database[:seats].where(session_id: session_id, device: device, removed_at: nil).order(:id).select_map(:name)
      end

      # The name is nobody's any more.
      def free_name(seat_id) = database[:seats].where(id: seat_id).update(name: Sequel.join([:name, " (freed ", :id, ")"]))

      # @return [Hash{Integer=>Array<Hash>}] seat id to :browser, :first_at and :last_at of each device
      def devices(seat_ids)
        database[:seat_devices].where(seat_id: seat_ids).order(:first_at).to_hash_groups(:seat_id)
      end

      # Puts a seat forward in time, for demo data.
      def came_late(seat_id, seconds)
        later = Sequel.lit("joined_at + make_interval(secs => ?)", seconds)
        database[:seats].where(id: seat_id).update(joined_at: later)
      end

      def remove(seat_id)
        database[:seats].where(id: seat_id).update(removed_at: Sequel.function(:clock_timestamp), stream_key: nil)
      end

      # What a seat is called whose student is gone: longer than any name that can be typed, so that it is
      # nobody's.
      NAMELESS = "A student whose name has been deleted, number "

      # Ties a seat to a person and a team.
      # @param student_id [Integer, nil]; team_id [Integer, nil] of a team of the same session
      def belong(seat_id, student_id:, team_id:)
        database[:seats].where(id: seat_id)
                        .update(student_id: student_id, team_id: team_id, time_factor: factor_of(student_id))
      end

      # Ties a seat to another person, and leaves the team and the time that there was.
      # @param student_id [Integer, nil]
      # @return [Boolean] whether they had no other seat
      def link(seat_id, student_id) = change_unless_taken(seat_id, student_id: student_id)

      # Takes away whose seats these were: their names, what they noted for themselves, and what was written to them
      # or drawn over what they gave.
      # @param ids [Array<Integer>]
      def forget(ids)
        database[:session_events].where(command: "rename").where(Sequel.lit("(arguments->>'seat')::bigint") => ids)
                                 .update(arguments: Sequel.lit("arguments - 'name'"))
        %i[notes comments drawn_on].each { |table| database[table].where(seat_id: ids).delete }
        database[:seats].where(id: ids).update(name: Sequel.join([NAMELESS, :id]), extra: "", student_id: nil)
      end

      # How much more time a student has, in all sessions of theirs that run.
      # @param factor [BigDecimal]
      def give_time_factor(student_id, factor)
        running = database[:sessions].where(ended_at: nil).select(:id)
        database[:seats].where(student_id: student_id, session_id: running).update(time_factor: factor)
      end

      # How much more time than others a seat has.
      # @return [Rational]
      def time_factor(seat_id) = database[:seats].where(id: seat_id).get(:time_factor).to_r

      # @return [Sequel::SQL::Expression] how much more time than others a student has
      def factor_of(student_id)
        Sequel.function(:coalesce, database[:students].where(id: student_id).select(:time_factor), 1)
      end

      def count(session_ids)
        database[:seats].where(session_id: session_ids, removed_at: nil).group_and_count(:session_id).as_hash(:session_id, :count)
      end

      # @param seat_id [Integer, nil] only this one
      # @return [Array<Core::Session::Seat>] in order of joining
      def of(session_id, seat_id: nil)
        all = if seat_id then prepared(:seat_of_session) { all_of_session.where(id: :$seat_id) }
              else prepared(:seats_of_session) { all_of_session }
              end
        all.call({ session_id: session_id, seat_id: seat_id }.compact).map do |row|
          Core::Session::Seat.new(**row, time_factor: row[:time_factor].to_r).freeze
        end
      end

      # Runs the block in a transaction that only one process at a time can hold for
      # this purpose and session; nil when another has it.
      def alone(purpose, session_id)
        transaction { yield if database.get(Sequel.function(:pg_try_advisory_xact_lock, purpose, session_id)) }
      end

      # @return [Integer, nil] id
      def enter(row, **about)
        about = { **row, **about, stream_key: (PAGE unless row[:keypad]), **Notices.of(row[:session_id], :people) }
        database[ENTER, about].get(:id)
      end
      private :enter

      def smallest(session_id, team_order)
        Sequel.lit(Teams::SMALLEST, session_id: session_id, team_order: Seats.order(team_order))
      end
      private :smallest

      # As PostgreSQL reads an array of ids.
      def self.order(ids) = "{#{ids.join(",")}}"

      def all_of_session
        seen = "stream_key IS NOT NULL AND seen_at > clock_timestamp() - make_interval(secs => #{STALE})"
        here = Sequel.lit("board OR #{seen} AND hidden_at IS NULL")
        left = "CASE WHEN NOT (#{seen}) THEN coalesce(left_at, seen_at, joined_at) ELSE hidden_at END"
        away = Sequel.lit("CASE WHEN NOT board THEN #{left} END")
        database[:seats].where(session_id: :$session_id, removed_at: nil).order(:id)
                        .select(:id, :name, :practice, :student_id, :team_id, :extra, :keypad, :time_factor, :board,
                                here.as(:here), (Sequel[:seen_at] !~ nil).as(:visited),
                                Sequel.like(:name, "#{NAMELESS}%").as(:forgotten),
                                Repository.epoch(away).as(:away_since), Repository.epoch(:joined_at).as(:came_at))
      end
      private :all_of_session

      # @return [Boolean] whether nothing unique stood in the way
      def change_unless_taken(seat_id, **columns)
        database.transaction(savepoint: true) { database[:seats].where(id: seat_id).update(columns) }
        true
      rescue Sequel::UniqueConstraintViolation
        false
      end
      private :change_unless_taken

      def self.digest(token) = Sequel.blob(Digest::SHA256.digest(token.to_s))
    end
  end
end
