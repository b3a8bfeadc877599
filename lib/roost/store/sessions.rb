# frozen_string_literal: true

require "securerandom"

module Roost
  module Store
    # Sessions: the frozen lesson, the state and its version, and the events.
    class Sessions < Repository
      Row = Struct.new(:id, :account_id, :lesson_id, :title, :class_id, :class_name, :code, :screen_key, :lesson_version,
                       :options, :state, :version, :created_at, :ended_at, :deleted, :now, :self_paced, :left,
                       keyword_init: true)

      ADVANCE = <<~SQL.freeze
        WITH event AS (
          INSERT INTO session_events (session_id, version, command, arguments, account_id, slide_id)
          VALUES (?, ?, ?, ?, ?, ?)),
        opened AS (#{Openings::KEEP})
        UPDATE sessions SET state = ?, version = ?, results_no = results_no + 1,
                            ended_at = CASE WHEN ? THEN coalesce(ended_at, clock_timestamp()) END
        WHERE id = ? RETURNING pg_notify(?, ?)
      SQL
      ADVANCED = [*%i[id version command arguments account_id on_slide].map { |name| :"$#{name}" }, *Openings::PLACES,
                  *%i[state version ended id channel notice].map { |name| :"$#{name}" }].freeze
      private_constant :ADVANCE, :ADVANCED
      CODE_TRIES = 20
      LAST_TIMES = Core::LruCache.new(50)
      private_constant :LAST_TIMES
      SCREEN_KEY = /\A[\w-]{22}\z/

      # @param last_time [Hash{String=>Float}] ids of slides to how their question went in an earlier session
      # @param state [Core::Session::State, nil] of a session that each goes through alone; nil: one that waits in the lobby
      # @param once [String, nil] UUID of the form it was asked for with: the same form again makes no other
      # @yieldparam id [Integer] of a session that was made
      # @return [Row]
      def create(account_id:, lesson_id:, lesson:, title:, class_name:, options:, class_id: nil, last_time: {}, state: nil,
                 once: nil)
        begun = state || Core::Session::State.start
        row = { once: once, account_id: account_id, lesson_id: lesson_id, title: title, class_id: class_id,
                class_name: class_name,
                screen_key: SecureRandom.urlsafe_base64(16), lesson: Sequel.pg_jsonb(lesson.to_document),
                options: Sequel.pg_jsonb(options.to_document), last_time: Sequel.pg_jsonb(last_time),
                self_paced: !state.nil?, state: Sequel.pg_jsonb(begun.to_document) }
        CODE_TRIES.times do
          # A code in use is skipped without breaking a surrounding transaction.
          id = database[:sessions].insert_conflict.insert(row.merge(code: Core::JoinCode.make(SecureRandom)))
          made = asked_once(account_id, once) unless id
          return made if made
          next unless id

          Openings.new(database).begin(id, begun.facts.openings) if begun.facts.openings.any?
          yield id if block_given?
          return find(id)
        end
        raise "no free join code after #{CODE_TRIES} tries"
      end

      # @param once [String, nil] UUID of a form
      # @return [Row, nil] the session that was made of it already
      def asked_once(account_id, once)
        row = once && with_now.where(account_id: account_id, once: once).first
        row && read(row)
      end

      # @return [Row, nil]
      def find(id, lock: false)
        one(lock, id: id)
      end

      # @return [Row, nil] only when it is this teacher's
      def of_teacher(account_id, id, deleted: false, lock: false)
        found = one(lock, id: id, account_id: account_id)
        found unless found&.deleted && !deleted
      end

      # How questions went in an earlier session; said when a session begins, and then the same for ever.
      # @return [Hash{String=>Float}] ids of slides to mean marks
      def last_time(id) = LAST_TIMES.fetch(id) { database[:sessions].where(id: id).get(:last_time).to_h.freeze }

      # @return [Array<Integer>] ids of those that run for a class
      def running_for(class_id)
        database[:sessions].where(class_id: class_id, ended_at: nil, deleted_at: nil, self_paced: false).select_map(:id)
      end

      # @return [Array<Row>] assignments of a class, the one that was given last first
      def assigned_to(class_id)
        with_now.where(class_id: class_id, deleted_at: nil, self_paced: true).reverse(:created_at).map { |row| read(row) }
      end

      # Lets an assignment that has ended go on.
      def reopen(row)
        advance(row, row.state.with(phase: "live"), command: "reopen", arguments: {}, account_id: row.account_id)
      end

      # @return [Array<Row>] assignments a teacher has given, the one that was given last first
      def assigned_by(account_id)
        with_now.where(account_id: account_id, deleted_at: nil, self_paced: true).reverse(:created_at).map { |row| read(row) }
      end

      # @param hours [Integer] since the last command, and since a student's device was last seen
      # @return [Array<Integer>] ids of those that run
      def silent(hours)
        long_ago = Sequel.lit("clock_timestamp() - make_interval(hours => ?)", hours)
        database[:sessions].where(ended_at: nil, deleted_at: nil,
                                  self_paced: false).where(last_sign_of_life < long_ago).select_map(:id)
      end

      # When something last happened in a session: a command, or a student's device that was seen.
      # @return [Time]
      def last_sign(id) = database[:sessions].where(id: id).get(last_sign_of_life)

      # Puts the end of a session that nobody ended back to when it was over.
      # @param time [Time]
      def ended_at(id, time)
        database[:sessions].where(id: id).update(ended_at: time)
        closed = Sequel.function(:greatest, :opened_at, Sequel.function(:least, :closed_at, time))
        database[:openings].where(session_id: id).exclude(closed_at: nil).update(closed_at: closed)
      end

      # Whether a session was ended by the clock, since nobody else had.
      def closed_itself?(id)
        database[:session_events].where(session_id: id, command: "end", account_id: nil).any?
      end

      # The session a code stands for: the open one, else the last that had it.
      def by_code(code)
        of_code = prepared(:session_by_code) do
          with_now.where(code: :$code, deleted_at: nil)
                  .order(Sequel.desc(Sequel.lit("ended_at IS NULL")), Sequel.desc(:created_at)).limit(1)
        end
        row = of_code.call(code: code).first
        row && read(row)
      end

      # How seats come to teams from now on.
      # @param way [String] of Core::Session::Team::WAYS
      def play_in(id, way)
        document = Sequel.pg_jsonb_op(:options).concat(Sequel.pg_jsonb({ "teams" => way }))
        database[:sessions].where(id: id).update(options: document)
      end

      # Lets students see everything that was right on their copies, whatever was told, or not any more.
      def release(account_id, id, released)
        document = Sequel.pg_jsonb_op(:options).concat(Sequel.pg_jsonb({ "released" => released }))
        database[:sessions].where(account_id: account_id, id: id).update(options: document)
      end

      # The class as it was when its teacher left it.
      # @return [Array<Core::Student>]
      def roll_left(id)
        database[:sessions].where(id: id).get(:roll).to_a.map { |each| Core::Student.new(**each.transform_keys(&:to_sym)).freeze }
      end

      # A teacher leaves a class: her sessions of it keep it as it is now.
      # @param roll [Array<Core::Student>]
      def leave_class(account_id, class_id, roll)
        kept = roll.map { |student| student.to_h.except(:notes) }
        database[:sessions].where(account_id: account_id, class_id: class_id, roll: nil).update(roll: Sequel.pg_jsonb_wrap(kept))
      end

      # She teaches it again.
      def return_to_class(account_id, class_id)
        database[:sessions].where(account_id: account_id, class_id: class_id).update(roll: nil)
      end

      # Whether students keep a copy of what they gave.
      def allow_copies(account_id, id, allowed)
        document = Sequel.pg_jsonb_op(:options).concat(Sequel.pg_jsonb({ "own_copy" => allowed }))
        database[:sessions].where(account_id: account_id, id: id).update(options: document)
      end

      # @return [Row, nil] the session a seat is in
      def of_seat(seat_id)
        row = with_now.where(id: database[:seats].where(id: seat_id).select(:session_id), deleted_at: nil).first
        row && read(row)
      end

      def by_screen_key(key)
        return nil unless key.match?(SCREEN_KEY)

        row = with_now.where(screen_key: key, deleted_at: nil).first
        row && read(row)
      end

      # @return [Core::Lesson] the frozen lesson, as it is now
      def lesson(id) = frozen_lesson(id, database[:sessions].where(id: id).get(:lesson_version))

      # @param row [Row]
      # @return [Core::Lesson] the frozen lesson that belongs to it
      def lesson_of(row) = frozen_lesson(row.id, row.lesson_version)

      # Saves the state a command led to, with the event, and tells every web process; the row must be locked.
      # @param told [Boolean] whether to tell what has changed, where that is little: nothing but the state may have
      def advance(row, state, command:, arguments:, account_id:, told: false)
        version = row.version + 1
        step = Core::Session::StepOn.between(row.state, state, version: version, lesson: row.lesson_version) if told
        prepared(:advance_session) { database[ADVANCE, *ADVANCED] }
          .call(id: row.id, state: Sequel.pg_jsonb(state.to_document), version: version, ended: state.ended?, command: command,
                arguments: Sequel.pg_jsonb(arguments), account_id: account_id, on_slide: state.slide_id,
                **Notices.of(row.id, :state, step),
                **Openings.changed(row.state.facts.openings, state.facts.openings))
        Facts.new(database).keep(row.id, row.state.facts, state.facts, teams: !row.options.teams.empty?)
        version
      end

      # Puts another lesson in the place of the session's copy; the row must be locked.
      def change_lesson(row, lesson)
        database[:sessions].where(id: row.id)
                           .update(lesson: Sequel.pg_jsonb(lesson.to_document), results_no: Sequel[:results_no] + 1,
                                   lesson_version: Sequel.function(:nextval, "lesson_versions"))
      end

      def mark_deleted(account_id, id, deleted)
        stamp = deleted ? Sequel.function(:clock_timestamp) : nil
        database[:sessions].where(account_id: account_id, id: id).exclude(ended_at: nil).update(deleted_at: stamp) == 1
      end

      # @return [Array<Core::Session::Record::Command>] in order
      def commands(id)
        about = [Sequel[:command].as(:name), :arguments, :account_id, :slide_id, Repository.epoch(:at).as(:at)]
        database[:session_events].where(session_id: id).order(:version).select(*about)
                                 .map { |row| Core::Session::Record::Command.new(**row, arguments: row[:arguments].to_h).freeze }
      end

      private

      # @return [Sequel::SQL::Expression] of a row of sessions
      def last_sign_of_life
        signs = { session_events: { at: {} }, seats: { seen_at: { practice: false } } }.flat_map do |table, columns|
          columns.map do |column, which|
            database[table].where(session_id: Sequel[:sessions][:id]).where(which).select do
              max(column)
            end
          end
        end
        Sequel.function(:greatest, :created_at, *signs)
      end

      # Read once a process and version; the present one, where that has been replaced meanwhile.
      def frozen_lesson(id, version)
        FrozenLessons.of(id, version) { lesson_where(id: id, lesson_version: version) } || lesson_where(id: id)
      end

      def lesson_where(**which)
        document = database[:sessions].where(which).get(:lesson)
        document && Core::Lesson.from_document(document)
      end

      # @param lock [Boolean] for the transaction
      # @return [Row, nil]
      def one(lock, **which)
        row = prepared([:session, *which.keys, (:locked if lock)].compact.join("_").to_sym) do
          all = with_now.where(placeholders(which.keys))
          lock ? all.for_update : all
        end.call(which).first
        row && read(row)
      end

      def with_now
        columns = %i[id account_id lesson_id title class_id class_name code screen_key lesson_version options state version
                     created_at ended_at deleted_at self_paced]
        now = Repository.epoch(Sequel.function(:clock_timestamp)).as(:now)
        database[:sessions].select(*columns, (Sequel[:roll] !~ nil).as(:left), now,
                                   Facts::OF_SESSION.as(:facts))
      end

      def read(row)
        fields = row.except(:options, :state, :deleted_at, :facts)
        Row.new(**fields, options: Core::Session::Options.from_document(row[:options]), deleted: !row[:deleted_at].nil?,
                          state: Core::Session::State.from_document(row[:state], Facts.read(row[:facts]))).freeze
      end
    end
  end
end
