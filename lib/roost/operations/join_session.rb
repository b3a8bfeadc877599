# frozen_string_literal: true

require "securerandom"

module Roost
  module Operations
    # Gives a device a seat: by a code and what the session asks for (Core::Session::Options#entry); no
    # account.
    class JoinSession
      NOT_OPEN = "That code isn't open. Check the board, or ask your teacher."
      ENDED = "That lesson has ended. Ask your teacher for a new code."
      FULL = "This lesson is full. Your teacher can make room for more."
      LOCKED = "The door of this lesson is locked. Ask your teacher to let you in."
      # Where two letters are one to the database that are not to us.
      TAKEN = "That name is taken. Add a letter or a number to it."
      SITS = "Somebody sits under that name already. If it wasn't you, tell your teacher."
      STOPPED = "That name can't go up on the class screen. Type your own name, or ask your teacher."
      SENT_AWAY = "Your teacher has taken your seat out. Ask, or wait a while."
      # Seconds for which a device whose seat was taken out stays out.
      STAYS_OUT = 600
      DEVICE = /\A\w{16,40}\z/
      PICK = "Pick your name from the list. If it isn't there, tell your teacher."

      # Who comes in. student_id:: of the class list, or nil
      Comer = Struct.new(:name, :student_id, :extra, :device, keyword_init: true)

      # @return [Core::Reading] of the open session a typed code stands for
      def self.session(raw_code)
        code = Core::JoinCode.read(raw_code)
        row = code && Store::Sessions.new.by_code(code)
        return Core::Reading.refused(NOT_OPEN) unless row
        return Core::Reading.refused(ENDED) if row.ended_at
        return Core::Reading.refused(LOCKED) if row.state.locked

        Core::Reading.ok(row)
      end

      # @param raw_name [String, nil] as typed
      # @param student_id [Integer, nil] of the class list, as picked
      # @param extra [String, nil] what was asked besides
      # @param pass_of [Core::Student, nil] whose pass was shown
      # @param device [String, nil] what the device calls itself
      # @return [Core::Reading] of the seat's token
      def call(raw_code, raw_name, student_id: nil, extra: nil, practice: false, pass_of: nil, device: nil)
        device = nil unless device.to_s.match?(DEVICE)
        JoinSession.session(raw_code).and_then do |row|
          next sit_down(row, Comer.new(name: raw_name, extra: ""), practice) if practice
          next Core::Reading.refused(SENT_AWAY) if sent_away?(row, device, pass_of)
          next sit_down(row, Comer.new(name: pass_of.shown_name, student_id: pass_of.id, extra: ""), false) if pass_of

          who = asked(row, extra).and_then { |said| comer(row, raw_name, student_id, said) }
          who.and_then { |comer| sit_down(row, comer.dup.tap { |each| each.device = device }, false) }
        end
      end

      private

      # A pass is one student's; a name of a list may have been picked by somebody else.
      def sent_away?(row, device, pass_of)
        whose = pass_of ? { student_id: pass_of.id } : { device: device }
        Store::Seats.new.sent_away?(row.id, STAYS_OUT, **whose)
      end

      def asked(row, extra)
        label = row.options.extra
        return Core::Reading.ok("") if label.empty?

        Core::Text.read(extra, limit: Core::Session::Options::EXTRA_LIMIT, what: "“#{label}”", lines: false).and_then do |text|
          text.empty? ? Core::Reading.refused("“#{label}” is missing. Type it, too.") : Core::Reading.ok(text)
        end
      end

      # @return [Core::Reading] of Comer
      def comer(row, raw_name, student_id, extra)
        people = row.class_id ? Store::Students.new.of_class(row.class_id) : []
        case row.options.entry
        when "pass" then Core::Reading.refused(EnterByPass::UNKNOWN)
        when "made_up" then Core::Reading.ok(Comer.new(name: Core::MadeUpName.of(SecureRandom), extra: extra))
        when "list"
          person = student_id ? people.find { |each| each.id == student_id } : named(people, raw_name)
          return Core::Reading.refused(PICK) unless person

          Core::Reading.ok(Comer.new(name: person.shown_name, student_id: person.id, extra: extra))
        else typed(row, raw_name, named(people, raw_name)&.id, extra)
        end
      end

      # Names on the class list pass, whatever they sound like.
      def typed(row, raw_name, student_id, extra)
        Core::SeatName.read(raw_name).and_then do |name|
          next stop(row, name) if student_id.nil? && Store::WordLists.clean_name.stops?(name) &&
                                  !Store::StoppedNames.new.allowed?(row.id, name)

          Core::Reading.ok(Comer.new(name: name, student_id: student_id, extra: extra))
        end
      end

      # The teacher sees it at the Desk, and may let it through.
      def stop(row, name)
        Store::StoppedNames.new.note(row.id, name)
        Live::Bus.announce(row.id, :people)
        Core::Reading.refused(STOPPED)
      end

      # The one who is called so in the class, if there is only one.
      def named(people, raw_name)
        name = raw_name.to_s.strip
        found = people.select { |person| [person.name, person.shown_name].any? { |each| each.casecmp?(name) } }
        found.first if found.length == 1
      rescue ArgumentError # no text at all: refused when it is read
        nil
      end

      def sit_down(row, who, practice)
        seats = Store::Seats.new
        tried = nil
        loop do
          reading = Core::SeatName.read(who.name, taken: ->(beginning) { seats.names(row.id, beginning: beginning) })
          return reading unless reading.ok?
          return Core::Reading.refused(TAKEN) if reading.value == tried

          token = enter(seats, row, who, tried = reading.value, practice)
          return Core::Reading.ok(token) if token
          return Core::Reading.refused(FULL) if !practice && full?(seats, row)

          next unless who.student_id && seats.people(row.id).include?(who.student_id)
          return Core::Reading.refused(SITS) if row.options.entry == "list"

          who = who.dup.tap { |other| other.student_id = nil } # somebody else of that name
          tried = nil
        end
      end

      # @return [String, nil] nil when another was faster, or there is no room
      def enter(seats, row, who, name, practice)
        _id, token = seats.create(row.id, name, practice: practice, room: practice ? nil : row.state.room_for,
                                                student_id: who.student_id, extra: who.extra, device: who.device)
        Live::Bus.announce(row.id, :people) if token
        token
      end

      def full?(seats, row) = seats.count(row.id).fetch(row.id, 0) >= row.state.room_for
    end
  end
end
