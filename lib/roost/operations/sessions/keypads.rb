# frozen_string_literal: true

require "securerandom"

module Roost
  module Operations
    # What a receiver of handheld keypads may do in a session, once the teacher has let it in: each keypad is a seat, and
    # answers like any other (docs/KEYPADS.md).
    class Keypads
      CROWDED = "Many receivers have asked to connect already. Ask the teacher."
      NOT_IN = "The teacher hasn't connected this receiver."
      NO_NUMBER = "A keypad has a number of one to eight letters and digits."
      WHICH = "Say which question was answered."
      ENOUGH = "No more receivers can be connected. Disconnect one first."
      CANNOT = "This question can't be answered with a keypad."
      UNREADABLE = "That key answers nothing here."
      UNKNOWN = "That can't be done with a keypad."
      NOBODY = "Nobody in the class has that number, or they have joined already."
      NUMBER = /\A[A-Za-z0-9]{1,8}\z/
      NAME_LIMIT = 40

      # What a receiver is told. state:: :waiting, :in or :refused; question:: by which what is pressed has to name the present
      # question, nil where there is none; takes:: what it takes, :letters, :digits or nil; keys:: [String], the letters;
      # open:: whether it is open; keypads:: Hash of numbers to :id, :name and :battery_low
      Status = Struct.new(:state, :phase, :question, :takes, :keys, :open, :keypads, keyword_init: true)
      QUESTION = /\A(?<slide>\w{1,80})\.(?<attempt>\d{1,4})\z/

      # @return [Core::Reading] of the receiver's token
      def knock(raw_code, raw_name)
        JoinSession.session(raw_code).and_then do |row|
          Core::Text.read(raw_name, limit: NAME_LIMIT, what: "The receiver's name", lines: false).and_then do |name|
            token = receivers.knock(row.id, name.empty? ? "Receiver" : name)
            token ? Core::Reading.ok(token) : Core::Reading.refused(CROWDED)
          end
        end
      end

      # The teacher lets a receiver in, or not.
      # @return [Core::Reading, nil] nil when she has no such session
      def answer_knock(account_id, session_id, receiver_id, allowed:)
        return nil unless Store::Sessions.new.of_teacher(account_id, session_id)
        return Core::Reading.refused(ENOUGH) if allowed && !receivers.room?(session_id)

        Core::Reading.ok(receivers.answer(session_id, receiver_id, allowed))
      end

      # @return [Status, nil] nil of an unknown receiver
      def status(token)
        receiver = receivers.by_token(token)
        return nil unless receiver

        receivers.looked(receiver.id)
        Store::Seats.new.still_here([stream(receiver)])
        row = Store::Sessions.new.find(receiver.session_id)
        let_in = receiver.state == :in
        Status.new(state: receiver.state, phase: row.state.phase, open: row.state.open?, **(let_in ? asked(row) : {}),
                   keypads: let_in ? receivers.keypads(row.id, receiver.id) : {}).freeze
      end

      # Something happened with a keypad.
      # @param message [Hash{String=>String}] "keypad", and one of "answer" (with "question", as the status named it), "student",
      #   "battery", "range"
      # @return [Core::Reading, nil] nil of an unknown receiver
      def event(token, message)
        receiver = receivers.by_token(token)
        return nil unless receiver
        return Core::Reading.refused(NOT_IN) unless receiver.state == :in
        return Core::Reading.refused(NO_NUMBER) unless message["keypad"].to_s.match?(NUMBER)

        row = Store::Sessions.new.find(receiver.session_id)
        return Core::Reading.refused(JoinSession::ENDED) if row.ended_at

        seat(row, receiver, message["keypad"]).and_then { |seat| carry_out(row, receiver, seat, message) }
      end

      # Whose a keypad is, by the teacher.
      # @return [Core::Reading, nil] of the name; nil when she has no such session, seat or student
      def give(account_id, session_id, seat_id, student_id)
        row = Store::Sessions.new.of_teacher(account_id, session_id)
        return nil unless row&.class_id && receivers.all_keypads(session_id).any? { |seat| seat[:id] == seat_id }

        person = Store::Records.new.class_of(row).find { |each| each.id == student_id }
        person && belong(row, seat_id, person)
      end

      private

      def receivers = @receivers ||= Store::Receivers.new

      # What the present question is called, and what it takes.
      def asked(row)
        slide = Store::Sessions.new.lesson_of(row).slide(row.state.slide_id)
        return {} unless slide&.prompt

        attempt = row.state.opening&.attempt || 1
        { question: "#{slide.id}.#{attempt}", takes: slide.prompt.keypad_takes, keys: slide.prompt.keypad_keys }
      end

      def stream(receiver) = "#{Store::Receivers::STREAM}-#{receiver.id}"

      # @return [Core::Reading] of the seat of a keypad, made when it is first heard of
      def seat(row, receiver, keypad)
        sitting(row, receiver, keypad) do
          joined = JoinSession.new.keypad(row.code, keypad, receiver.id)
          # Another event of the same keypad may have been faster.
          now = sitting(row, receiver, keypad) { joined }
          Store::Seats.new.arrive(now.value[:id], stream(receiver)) && Live::Bus.announce(row.id, :people) if joined.ok?
          now
        end
      end

      # @return [Core::Reading] of :id and :name of a keypad's seat; what the block gives where it has none
      def sitting(row, receiver, keypad)
        seat = receivers.keypads(row.id, receiver.id)[keypad]
        seat ? Core::Reading.ok(seat) : yield
      end

      def carry_out(row, receiver, seat, message)
        if message["answer"] then answer(row, seat, message["question"].to_s, message["answer"].to_s[0, 40])
        elsif message["student"] then by_number(row, seat, message["student"].to_s)
        elsif message["battery"] then changed(row) { receivers.battery(seat[:id], message["battery"] == "low") }
        elsif message["range"] then changed(row) { in_range(receiver, seat, message["range"] == "in") }
        else Core::Reading.ok(seat[:name])
        end
      end

      def changed(row)
        yield
        Live::Bus.announce(row.id, :people)
        Core::Reading.ok(nil)
      end

      def in_range(receiver, seat, here)
        seats = Store::Seats.new
        here ? seats.arrive(seat[:id], stream(receiver)) : seats.hide(seat[:id], true)
      end

      # A press that was delayed is that of the question it names.
      def answer(row, seat, question, keys)
        named = question.match(QUESTION)
        return Core::Reading.refused(WHICH) unless named

        lesson = Store::Sessions.new.lesson_of(row)
        slide = lesson.slide(named[:slide])
        return Core::Reading.refused(CANNOT) unless slide&.prompt&.keypad_takes

        fields = slide.prompt.keypad(keys)
        return Core::Reading.refused(UNREADABLE) unless fields

        message = said(slide, named[:attempt].to_i, seat, fields)
        slide.prompt.read(fields).and_then { save(row, lesson, seat, message).map { keys } }
      end

      # @return [Core::Reading]
      def save(row, lesson, seat, said)
        reply = SaveAnswer.new.call({ id: seat[:id], session_id: row.id }, lesson, said)
        return Core::Reading.refused(reply.message) if reply.state == "refused"

        Live::Bus.announce(row.id, :answers)
        Core::Reading.ok(reply)
      end

      def said(slide, attempt, seat, fields)
        before = Store::Answers.new.stored(seat[:id], slide.id, attempt)
        { "slide" => slide.id, "attempt" => attempt, "fields" => fields, "final" => true, "save_no" => before&.save_no.to_i + 1,
          "save_id" => SecureRandom.uuid }
      end

      def by_number(row, seat, number)
        people = Store::Records.new.class_of(row)
        person = number.empty? ? nil : people.find { |each| each.number == number }
        person ? belong(row, seat[:id], person) : Core::Reading.refused(NOBODY)
      end

      # @return [Core::Reading] of the name it has from now on
      def belong(row, seat_id, person)
        seats = Store::Seats.new
        return Core::Reading.refused(NOBODY) if seats.people(row.id).include?(person.id)

        taken = ->(beginning) { seats.names(row.id, beginning: beginning, but: seat_id) }
        Core::SeatName.read(person.shown_name, taken: taken).map do |name|
          receivers.give(seat_id, student_id: person.id, name: name)
          %i[seats people].each { |scope| Live::Bus.announce(row.id, scope) }
          name
        end
      end
    end
  end
end
