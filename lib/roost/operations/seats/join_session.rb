# frozen_string_literal: true

require "securerandom"

module Roost
  module Operations
    # Gives a device a seat: by a code and what the session asks for (ParticipantLookup); no account.
    class JoinSession
      NOT_OPEN = "That code isn't open. Check the board, or ask your teacher."
      ENDED = "That lesson has ended. Ask your teacher for a new code."
      FULL = "This lesson is full. Your teacher can make room for more."
      LOCKED = "Joining is locked. Ask your teacher to let you in."
      # Where two letters are one to the database that are not to us.
      TAKEN = "That name is taken. Add a letter or a number to it."
      SITS = "Somebody has joined under that name already. If it wasn't you, tell your teacher."
      SENT_AWAY = "Your teacher has removed you from this session. Ask, or wait a while."
      # Seconds for which a device whose seat was taken out stays out.
      STAYS_OUT = 600
      TEAM_ORDERS = Core::LruCache.new(50)
      private_constant :TEAM_ORDERS
      SAME_DEVICE = "This device has started already, as %s. Continue there, or ask your teacher."

      # @return [Core::Reading] of the open session a typed code stands for
      def self.session(raw_code)
        code = Core::JoinCode.read(raw_code)
        row = code && Store::Sessions.new.by_code(code)
        return Core::Reading.refused(NOT_OPEN) unless row
        return Core::Reading.refused(ENDED) if row.ended_at
        return Core::Reading.refused(LOCKED) if row.state.locked
        return Core::Reading.refused(NOT_OPEN) if row.self_paced && Store::Assignments.new.find(row.id).unassigned

        Core::Reading.ok(row)
      end

      # @param raw_name [String, nil] as typed
      # @param row [Store::Sessions::Row, nil] of the session that the code stands for, where it was asked for already
      # @param student_id [Integer, nil] of the class list, as picked
      # @param extra [String, nil] what was asked besides
      # @param device [String, nil] by which the device is known (Web::DeviceCookie)
      # @param team_id [Integer, nil] as chosen
      # @param pass [String, nil] as typed beside a name of the list
      # @return [Core::Reading] of the seat's token
      def call(raw_code, raw_name, row: nil, student_id: nil, extra: nil, device: nil, team_id: nil, pass: nil)
        enter(row || raw_code, device: device) do |row|
          once_more = once_more(row, device)
          next once_more if once_more

          who = { student_id: student_id, extra: extra, team_id: team_id, pass: pass }
          ParticipantLookup.new(row, device: device).call(raw_name, **who)
        end
      end

      # @param student [Core::Student] whose pass was shown
      # @return [Core::Reading] of the seat's token
      def with_pass(raw_code, student)
        enter(raw_code, student_id: student.id) { |row| ParticipantLookup.new(row).with_pass(student) }
      end

      # A handheld keypad, as long as there is room.
      # @param number [String]
      # @return [Core::Reading] of the seat's token
      def keypad(raw_code, number, receiver_id)
        comer = ParticipantLookup::Comer.new(name: "Keypad #{number}", extra: "")
        enter(raw_code, keypad: number, receiver_id: receiver_id) { Core::Reading.ok(comer) }
      end

      # One of a practice class: under any name, and though there is no room.
      # @return [Core::Reading] of the seat's token
      def rehearse(raw_code, name)
        JoinSession.session(raw_code).and_then do |row|
          comer = ParticipantLookup::Comer.new(name: name, extra: "")
          sit_down(row, comer, practice: true).map { |token| token.tap { Live::Bus.announce(row.id, :people) } }
        end
      end

      # Whoever comes late joins the smallest team: of equally small ones that with fewer points, then by name (rules.md).
      # @return [Array<Integer>] ids of teams; none where there are none, or it is the same
      def self.teams_in_order(row)
        return [] unless row.options.teams? && row.state.live?

        # A class that comes late comes together, and points change with a command only.
        TEAM_ORDERS.fetch([row.id, row.version]) do
          moment = Store::Moments.new.of(row)
          points = moment.round ? moment.round.team_totals : {}
          moment.teams.sort_by { |team| [points.fetch(team.id, 0), team.name.downcase] }.map(&:id)
        end
      end

      private

      # @param whose [Hash] :device or :keypad, or :student_id of a pass: a name of the list may have been picked by
      #   somebody else
      # @param where [Store::Sessions::Row, String] a session, or its code
      # @yieldreturn [Core::Reading] of ParticipantLookup::Comer
      def enter(where, **whose)
        found = where.is_a?(Store::Sessions::Row) ? Core::Reading.ok(where) : JoinSession.session(where)
        found.and_then do |row|
          next Core::Reading.refused(SENT_AWAY) if Store::Seats.new.sent_away?(row.id, STAYS_OUT, **whose)

          room = row.self_paced ? Core::Session::Commands::ROOM.max : row.state.room_for
          yield(row).and_then { |who| sit_down(row, who, room: room, **numbered(whose)) }
        end
      end

      # Where attempts are limited, another name on the same device is no other attempt.
      # @return [Core::Reading, nil] a refusal
      def once_more(row, device)
        return nil unless row.self_paced && device && Store::Assignments.new.find(row.id).rules["attempts"]

        name = Store::Seats.new.names_on(row.id, device).first
        name && Core::Reading.refused(format(SAME_DEVICE, name))
      end

      # Whoever has neither a pass nor a keypad gets a number to come back with.
      # @return [Hash] of Store::Seats#create
      def numbered(whose)
        by_itself = whose.key?(:student_id) || whose.key?(:keypad)
        by_itself ? whose.except(:student_id) : { **whose, number: format("%04d", SecureRandom.random_number(10_000)) }
      end

      # Which names are taken is asked only where somebody has the name.
      # @param about [Hash] of Store::Seats#create
      def sit_down(row, who, **about)
        seats = Store::Seats.new
        tried = nil
        loop do
          reading = Core::SeatName.read(who.name, taken: ->(name) { tried ? seats.names(row.id, beginning: name) : [] })
          return reading unless reading.ok?
          return Core::Reading.refused(TAKEN) if reading.value == tried

          token = create(seats, row, tried = reading.value, who, about)
          return Core::Reading.ok(token) if token
          return Core::Reading.refused(FULL) if about[:room] && seats.count(row.id).fetch(row.id, 0) >= about[:room]

          next unless who.student_id && seats.people(row.id).include?(who.student_id)
          return Core::Reading.refused(SITS) if row.options.entry == "list"

          who = ParticipantLookup::Comer.new(**who.to_h, student_id: nil) # somebody else of that name
          tried = nil
        end
      end

      # @return [String, nil] nil when another was faster, or there is no room
      def create(seats, row, name, who, about)
        order = who.team_id ? [] : JoinSession.teams_in_order(row)
        _id, token = seats.create(row.id, name, student_id: who.student_id, extra: who.extra, team_id: who.team_id,
                                                team_order: order, **about)
        token
      end
    end
  end
end
