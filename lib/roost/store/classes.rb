# frozen_string_literal: true

module Roost
  module Store
    # Classes: a teacher's own, and those she teaches with the colleague whose they are.
    class Classes < Repository
      # What students see of a class.
      Page = Struct.new(:id, :name, :subject, :year, :code, keyword_init: true)

      ROSTERS = 77_821 # of a lock
      private_constant :ROSTERS

      # shares_figures:: whether colleagues see how questions went in it, without names
      # students:: how many are in it now; mine:: whether it is the asking teacher's own; sourced_id:: by which other
      # programs know it (OneRoster); rostered:: whether that came from outside
      Row = Struct.new(:id, :name, :subject, :year, :students, :mine, :owner, :created_at, :archived, :deleted,
                       :sourced_id, :rostered, :code, :by_first_name, :shares_figures, keyword_init: true)

      # @param archived [Boolean] those of earlier years instead
      # @return [Array<Row>] by name
      def all(account_id, archived: false)
        read_all(
          taught_by(account_id).where(Sequel[:classes][:deleted_at] => nil,
                                      (Sequel[:classes][:archived_at] =~ nil) => !archived), account_id
        )
      end

      # @param lock [Boolean] until the transaction ends
      # @return [Row, nil] nil unless she teaches it; one that is deleted only when asked for
      def find(account_id, id, lock: false, deleted: false)
        dataset = taught_by(account_id).where(Sequel[:classes][:id] => id)
        database[:classes].where(id: id).for_update.first if lock
        found = read_all(dataset, account_id).first
        found unless found&.deleted && !deleted
      end

      # Any class of the school, for its keeper.
      # @return [Row, nil]
      def of_school(account_id, id)
        read_all(database[:classes].where(Sequel[:classes][:id] => id, Sequel[:classes][:deleted_at] => nil), account_id).first
      end

      # @return [Array<Row>] her own, those deleted that are not purged yet
      def deleted_lately(account_id)
        recent = Sequel.lit("classes.deleted_at > now() - make_interval(days => ?)", Roost.settings.purge_days)
        read_all(database[:classes].where(Sequel[:classes][:account_id] => account_id).where(recent), account_id)
      end

      # @param ids [Array<String>] by which other programs know them
      # @return [Hash{String=>Row}] of the classes she teaches, her own before others'
      def of_roster(account_id, ids)
        theirs = taught_by(account_id).where(Sequel[:classes][:sourced_id] => ids, Sequel[:classes][:deleted_at] => nil)
        read_all(theirs, account_id).sort_by { |row| row.mine ? 1 : 0 }.to_h { |row| [row.sourced_id, row] }
      end

      # @param code [String]
      # @return [Page, nil] nil when there is no such class, or it is of an earlier year
      def by_code(code)
        row = database[:classes].where(code: code, deleted_at: nil, archived_at: nil).select(*Page.members).first
        row && Page.new(**row).freeze
      end

      # @return [Integer, nil] nil when another class has it
      def give_code(id, code)
        database.transaction(savepoint: true) { database[:classes].where(id: id).update(code: code) }
      rescue Sequel::UniqueConstraintViolation
        nil
      end

      # Runs the block in a transaction that waits for any other of its kind: two rosters at the same moment could
      # bring one person twice. A refusal takes back what was done.
      # @yieldreturn [Core::Reading]
      # @return [Core::Reading]
      def one_roster_at_a_time
        done = nil
        transaction do
          database.get(Sequel.function(:pg_advisory_xact_lock, ROSTERS))
          done = yield
          raise Sequel::Rollback unless done.ok?
        end
        done
      end

      # @param about [Hash] :name, :subject, :year, perhaps :sourced_id and :rostered
      # @return [Integer] id
      def create(account_id, about) = database[:classes].insert(account_id: account_id, **about)

      # @return [Hash] what other programs said of it, to be given back (Exchange::OneRoster::Details#of_class)
      def records(id) = database[:classes].where(id: id).get(:records).to_h

      def keep_records(id, said) = database[:classes].where(id: id).update(records: Sequel.pg_jsonb(said))

      def change(id, about) = database[:classes].where(id: id).update(about)

      # @param marks [Hash] :archived or :deleted, to whether it is
      def mark(id, **marks)
        changes = marks.to_h { |name, marked| [:"#{name}_at", marked ? Sequel.function(:clock_timestamp) : nil] }
        database[:classes].where(id: id).update(changes)
      end

      # @return [Array<Sharing::Share>] colleagues who teach it, too, by name
      def colleagues(id)
        database[:class_teachers].where(class_id: id).join(:accounts, id: :account_id).order(:name)
                                 .select_map(%i[account_id name email])
                                 .map { |account, name, email| Sharing::Share.new(account_id: account, name: name, email: email).freeze }
      end

      def share(id, account_id) = database[:class_teachers].insert_conflict.insert(class_id: id, account_id: account_id)

      def unshare(id, account_id) = database[:class_teachers].where(class_id: id, account_id: account_id).delete

      private

      def taught_by(account_id)
        shared = database[:class_teachers].where(account_id: account_id).select(:class_id)
        database[:classes].where(Sequel.|({ Sequel[:classes][:account_id] => account_id }, { Sequel[:classes][:id] => shared }))
      end

      def read_all(dataset, account_id)
        columns = %i[id account_id name subject year created_at archived_at deleted_at sourced_id rostered code by_first_name
                     shares_figures]
        columns.map! { |name| Sequel[:classes][name] }
        dataset.join(:accounts, id: Sequel[:classes][:account_id])
               .order(Sequel.function(:lower, Sequel[:classes][:name]), Sequel[:classes][:id])
               .select(*columns, Sequel[:accounts][:name].as(:owner), present.as(:students))
               .map { |row| read(row, account_id) }
      end

      # How many are in a class now.
      def present
        database[:enrolments].join(:students, id: :student_id)
                             .where(class_id: Sequel[:classes][:id], ended_on: nil, Sequel[:students][:deleted_at] => nil)
                             .select(Sequel.function(:count).*)
      end

      def read(row, account_id)
        Row.new(**row.except(:account_id, :archived_at, :deleted_at), mine: row[:account_id] == account_id,
                                                                      archived: !row[:archived_at].nil?,
                                                                      deleted: !row[:deleted_at].nil?).freeze
      end
    end
  end
end
