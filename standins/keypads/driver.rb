# frozen_string_literal: true

module Keypads
  # What a receiver of handheld keypads has to be able to do: one file, one class. Everything that a real receiver needs
  # (its cable, its own protocol) stays behind this.
  class Driver
    # What happened with one keypad. number:: of it, one to eight letters and digits; what:: :answer, :student, :battery or
    # :range; value:: what was pressed ("B", "AC", "12.5"), a student's number, "low" or "good", "in" or "out"
    # question:: of an answer, as the status named it when the key was pressed
    Event = Struct.new(:number, :what, :value, :question, keyword_init: true)

    # What the receiver is called, for the teacher who lets it in.
    # @return [String]
    def name = raise(NotImplementedError)

    # What has happened since it was asked last; returns at once.
    # @param status [Hash] of the session: "state" ("waiting", "in", "refused"), "phase" ("lobby", "live", "ended"), "takes"
    #   ("letters", "digits" or nil), "keys" (the letters), "question" (what the present one is called), "open" (true, false),
    #   "keypads" (number to name)
    # @return [Array<Event>]
    def events(_status) = raise(NotImplementedError)

    # What became of an event, for keypads that can show it; the others leave this as it is.
    # @param event [Event]
    # @param refusal [String, nil] a sentence, or nil where it was taken
    def told(event, refusal); end
  end
end
