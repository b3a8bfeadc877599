# frozen_string_literal: true

require "bigdecimal"
require "securerandom"

module Roost
  module Store
    # The school's settings, who teaches here, and who is invited to.
    class School < Repository
      Row = Struct.new(:name, :time_zone, :top_grade, :grade_step, :grade_table, :keep_days, :joining, :domains, :language,
                       keyword_init: true) do
        # How a share is read as a grade here.
        # @return [Core::Grading::Scale]
        def scale
          Core::Grading::Scale.new(top: top_grade, step: grade_step, table: Core::Grading::Scale.read_table(grade_table).value)
        end

        # As a form says it (Core::SchoolSettings).
        def to_form
          to_h.transform_keys(&:to_s).merge("domains" => domains.join(", "), "keep_days" => keep_days.to_s,
                                            **%i[top_grade grade_step].to_h { |grade| [grade.to_s, plain(self[grade])] })
        end

        private

        def plain(number) = number.to_s("F").sub(/\.?0+\z/, "")
      end
      Teacher = Struct.new(:id, :name, :email, :keeper, :stopped, :lessons, :classes, keyword_init: true)

      # A link of an invitation is good for this many days.
      INVITED_FOR = 14
      # And the link for the first account for so many minutes.
      SET_UP_WITHIN = 60

      # @return [Row]
      def settings
        row = database[:school].first
        Row.new(**row.except(:id), domains: row[:domains].to_a).freeze
      end

      # How names are put into order (PostgreSQL's, from ICU).
      def collation = "#{database[:school].get(:language)}-x-icu"

      # @param form [Hash] as Core::SchoolSettings reads it
      # @return [Core::Reading] of Hash, for #change
      def read(form)
        Core::SchoolSettings.read(form).and_then do |about|
          time_zone?(about[:time_zone]) ? Core::Reading.ok(about) : Core::Reading.refused(Core::SchoolSettings::NO_ZONE)
        end
      end

      # @param about [Hash] of Row
      def change(about)
        grades = %i[top_grade grade_step].to_h { |name| [name, BigDecimal(about.fetch(name), 8)] }
        database[:school].update(**about, **grades, domains: Sequel.pg_array(about.fetch(:domains), :text))
      end

      def keeper?(account_id) = database[:accounts].where(id: account_id, keeper: true).any?

      # @return [Array<Teacher>] by name
      def teachers
        counts = %i[lessons classes].map do |table|
          database[table].where(account_id: Sequel[:accounts][:id], deleted_at: nil).select(Sequel.function(:count).*).as(table)
        end
        database[:accounts].order(Sequel.function(:lower, :name), :id)
                           .select(:id, :name, :email, :keeper, (Sequel[:stopped_at] !~ nil).as(:stopped), *counts)
                           .map { |row| Teacher.new(**row).freeze }
      end

      def stop(account_id, stopped)
        database[:accounts].where(id: account_id).update(stopped_at: stopped ? Sequel.function(:clock_timestamp) : nil)
      end

      # Whether the teacher with this address is stopped.
      def stopped?(email) = stopped.where(Sequel.function(:lower, :email) => email.downcase).any?

      # The one keeper there is from now on.
      def make_keeper(account_id)
        database[:accounts].where(keeper: true).update(keeper: false)
        database[:accounts].where(id: account_id).update(keeper: true)
      end

      # Gives a teacher's lessons, classes, students, sessions and bank of questions to a colleague.
      def hand_over(from, to)
        mine = { account_id: to }
        database[:lesson_shares].where(mine).where(lesson_id: database[:lessons].where(account_id: from).select(:id)).delete
        database[:class_teachers].where(mine).where(class_id: database[:classes].where(account_id: from).select(:id)).delete
        %i[lessons classes students sessions bank_questions].each { |table| database[table].where(account_id: from).update(mine) }
      end

      # @param email [String, nil] whose it is; nil for whoever has the link
      # @return [String] the key in the link
      def invite(account_id, email)
        key = SecureRandom.urlsafe_base64(18)
        database[:invitations].insert(digest: SignIns.digest(key), email: email, account_id: account_id)
        key
      end

      # @return [String, nil] whose an invitation is that is still good, empty for whoever has the link; nil without one
      def invitation(key) = good_invitation(key).select_map(:email).map(&:to_s).first

      # @return [Boolean] whether it was there: it is good once, also for two at the same moment
      def take_invitation?(key) = good_invitation(key).delete == 1

      # @return [String, nil] the key of a link for the first account, instead of any before; nil where there is one
      def set_up_key
        transaction do
          next nil if database[:accounts].any?

          key = SecureRandom.urlsafe_base64(24)
          database[:set_up_keys].delete
          database[:set_up_keys].insert(digest: SignIns.digest(key))
          key
        end
      end

      def set_up?(key) = database[:accounts].empty? && good_set_up(key).any?

      # @return [Boolean] whether it was good; it is no more
      def take_set_up?(key) = database[:accounts].empty? && good_set_up(key).delete == 1

      # Whether somebody with this address may make an account: by invitation, or by domain.
      # @param invitation [String, nil] key
      def may_join?(email, invitation) = of_domain?(email) || invitation_for(email, invitation).any?

      # Whether nobody comes in without an invitation.
      def invited_only? = settings.joining == "invited"

      # Uses what lets somebody make an account; an invitation is good once, also for two at the same moment.
      # @return [Boolean] whether there is anything that does
      def admit?(email, invitation)
        return true if of_domain?(email)

        invitation_for(email, invitation).delete == 1
      end

      private

      # Whether the database, whose clock is the only one, knows such a zone.
      def time_zone?(name) = database[:pg_timezone_names].where(name: name).any?

      def stopped = database[:accounts].from_self(alias: :stopped).exclude(stopped_at: nil)

      def of_domain?(email)
        school = settings
        school.joining == "domains" && school.domains.include?(email.downcase.split("@").last)
      end

      def invitation_for(email, key)
        good_invitation(key).where(Sequel.|({ email: nil }, { Sequel.function(:lower, :email) => email.downcase }))
      end

      # Whoever is stopped comes in by no link.
      def good_invitation(key)
        fresh = Sequel.lit("created_at > now() - make_interval(days => ?)", INVITED_FOR)
        theirs = stopped.where(Sequel.function(:lower, :email) => Sequel.function(:lower, Sequel[:invitations][:email]))
        database[:invitations].where(digest: SignIns.digest(key.to_s)).where(fresh).exclude(theirs.select(1).exists)
      end

      def good_set_up(key)
        fresh = Sequel.lit("created_at > now() - make_interval(mins => ?)", SET_UP_WITHIN)
        database[:set_up_keys].where(digest: SignIns.digest(key.to_s)).where(fresh)
      end
    end
  end
end
