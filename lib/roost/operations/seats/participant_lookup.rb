# frozen_string_literal: true

require "securerandom"

module Roost
  module Operations
    # Who a device stands for that comes into a session, by what the session asks for
    # (Core::Session::Options#entry) and what was said.
    class ParticipantLookup
      STOPPED = "That name can't go up on the class screen. Type your own name, or ask your teacher."
      PICK = "Pick your name from the list. If it isn't there, tell your teacher."
      NO_PASS = "Type your student pass."
      OWN_PASS = "%s has a student pass. Type it, too, so that nobody else joins under that name."
      BY_HAND = "Your teacher approves each new device. Wait a moment, then press Join again."

      CHOOSE = "Choose your team."

      # student_id:: of the class list, or nil; extra:: what was asked besides the name, or ""; team_id:: nil for whichever
      # is the smallest
      Comer = Struct.new(:name, :student_id, :extra, :team_id, keyword_init: true)

      # @param row [Store::Sessions::Row]
      # @param device [String, nil] by which the device is known
      def initialize(row, device: nil)
        @row = row
        @device = device
      end

      # @param name [String, nil] as typed
      # @param student_id [Integer, nil] as picked from the list
      # @param extra [String, nil] what was asked besides
      # @param team_id [Integer, nil] as chosen
      # @param pass [String, nil] as typed beside a name of the list
      # @return [Core::Reading] of Comer
      def call(name, student_id:, extra:, team_id: nil, pass: nil)
        return Core::Reading.refused(CHOOSE) unless team?(team_id)

        @team_id = team_id
        comes = asked(extra).and_then { |said| named_so(name, student_id, said, pass) }
        comes.and_then { |comer| by_hand(comer) }
      end

      # @param student [Core::Student] whose pass was shown
      # @return [Core::Reading] of Comer
      def with_pass(student) = comer(student.shown_name, student.id, "")

      private

      attr_reader :row

      def named_so(name, student_id, said, pass)
        case row.options.entry
        when "pass" then Core::Reading.refused(NO_PASS)
        when "made_up" then comer(Core::MadeUpName.of(SecureRandom), nil, said)
        when "list" then picked(name, student_id, said, pass)
        else typed(name, said)
        end
      end

      def comer(name, student_id, extra)
        team_id = @team_id || group(student_id)
        Core::Reading.ok(Comer.new(name: name, student_id: student_id, extra: extra, team_id: team_id).freeze)
      end

      def teams = @teams ||= Store::Teams.new.of(row.id)

      # Where each chooses, one of them has to be.
      def team?(team_id) = row.options.teams != "chosen" || teams.any? { |team| team.id == team_id }

      # The team that is called like the group of somebody on the class list.
      def group(student_id)
        person = row.options.teams == "groups" ? people.find { |each| each.id == student_id } : nil
        person && teams.find { |team| team.name.casecmp?(person.group.strip) }&.id
      end

      def asked(extra)
        label = row.options.extra
        return Core::Reading.ok("") if label.empty?

        Core::Text.read(extra, limit: Core::Session::Options::EXTRA_LIMIT, what: "“#{label}”", lines: false).and_then do |text|
          text.empty? ? Core::Reading.refused("“#{label}” is missing. Type it, too.") : Core::Reading.ok(text)
        end
      end

      def picked(name, student_id, extra, pass)
        person = student_id ? people.find { |each| each.id == student_id } : named(name.to_s)
        return Core::Reading.refused(PICK) unless person
        return Core::Reading.refused(format(OWN_PASS, person.shown_name)) unless pass?(person, pass)

        comer(person.shown_name, person.id, extra)
      end

      # Work that is done alone is nobody's but their own: a name that has a pass needs it, unless the teacher decided otherwise.
      def pass?(person, pass)
        return true if !row.self_paced || row.options.names_alone

        own = Store::Students.new.passes([person.id])[person.id]
        own.nil? || own == Core::StudentPass.read(pass.to_s)
      end

      # Where the teacher lets everybody in by hand, a device that has not been here waits for that.
      def by_hand(comer)
        return Core::Reading.ok(comer) unless row.state.by_hand
        return Core::Reading.ok(comer) if known_device? || Store::StoppedNames.new.allowed?(row.id, comer.name)

        stop(comer.name, BY_HAND)
      end

      def known_device? = @device && Store::Seats.new.names_on(row.id, @device).any?

      # Names on the class list pass, whatever they sound like.
      def typed(raw_name, extra)
        Core::SeatName.read(raw_name).and_then do |name|
          person = named(name)
          person || fit?(name) ? comer(name, person&.id, extra) : stop(name)
        end
      end

      def fit?(name) = !Store::WordLists.rude_names.include?(name) || Store::StoppedNames.new.allowed?(row.id, name)

      # The teacher sees it at the Desk, and may let it through.
      def stop(name, reason = STOPPED)
        Store::StoppedNames.new.note(row.id, name, device: @device.to_s)
        Live::Bus.announce(row.id, :people)
        Core::Reading.refused(reason)
      end

      # The one who is called so in the class, if there is only one.
      def named(name)
        found = people.select { |person| [person.name, person.shown_name].any? { |each| each.casecmp?(name.strip) } }
        found.first if found.length == 1
      end

      def people = @people ||= Store::Records.new.class_of(row)
    end
  end
end
