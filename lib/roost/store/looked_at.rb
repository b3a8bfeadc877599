# frozen_string_literal: true

module Roost
  module Store
    # Who looked at what is kept about students, and who changed their marks.
    class LookedAt < Repository
      # by, student:: names; student_id:: whose they are; what:: Symbol; at:: epoch seconds
      Entry = Struct.new(:by, :student_id, :student, :what, :said, :at, keyword_init: true)
      KEPT = 400 # days
      # The same by the same person within so many seconds is noted once.
      ONCE = 600
      MOST = 300

      # @param what [Symbol]
      # @param student_ids [Array<Integer, nil>]
      # @param said [String]
      def note(account_id, student_ids, what, said: "")
        ids = student_ids.compact.uniq
        return if ids.empty?

        about = { account_id: account_id, what: what.to_s, said: said }
        lately = database[:looked_at].where(**about, student_id: ids)
                                     .where(Sequel.lit("at > clock_timestamp() - make_interval(secs => ?)", ONCE))
        rows = (ids - lately.select_map(:student_id)).map { |id| { **about, student_id: id } }
        database[:looked_at].multi_insert(rows)
      end

      # @param student_id [Integer, nil] of one only
      # @param before [Integer, nil] only what was noted before this entry
      # @return [Array<Array(Integer, Entry)>] with ids, the latest first, at most MOST
      def latest(student_id: nil, before: nil)
        log = Sequel[:looked_at]
        rows = database[:looked_at].left_join(:accounts, id: log[:account_id]).join(:students, id: log[:student_id])
        rows = rows.where(log[:student_id] => student_id) if student_id
        rows = rows.where(log[:id] => ...before) if before
        whose = [Sequel[:accounts][:name].as(:by), log[:student_id], Sequel[:students][:name].as(:student)]
        rows.reverse(log[:id]).limit(MOST).select(log[:id], *whose, :what, :said, Repository.epoch(:at).as(:at))
            .map { |row| [row[:id], Entry.new(**row.except(:id), what: row[:what].to_sym).freeze] }
      end
    end
  end
end
