# frozen_string_literal: true

require_relative "driver"

module Keypads
  # A receiver and its keypads that are not there: they register, answer each question after a while, some of them change
  # their mind, one's battery is low, and one goes out of range and comes back. The same seed does the same.
  class Simulated < Driver
    LOW = 3 # place of the keypad whose battery is low
    FAR = 5 # place of the one that goes out of range
    TURNS_AWAY = 6 # looks for which it is

    # @param count [Integer] keypads
    # @param seed [Integer]
    # @param students [Array<String>] numbers on the class list: the first keypads say whose they are
    def initialize(count:, seed: 1, students: [])
      super()
      @numbers = (1..count).map { |number| format("%03d", number) }
      @random = Random.new(seed)
      @turn = 0
      @students = students
      @due = {}
    end

    def name = "Simulated receiver"

    def events(status)
      @turn += 1
      [*first, *range, *answers(status)]
    end

    private

    def event(number, what, value, question = nil)
      Event.new(number: number, what: what, value: value, question: question).freeze
    end

    # All are heard of once, and say whose they are.
    def first
      return [] unless @turn == 1

      all = @numbers.map { |number| event(number, :range, "in") }
      all += @numbers.zip(@students).filter_map { |number, student| student && event(number, :student, student) }
      @numbers[LOW] ? [*all, event(@numbers[LOW], :battery, "low")] : all
    end

    def range
      far = @numbers[FAR]
      return [] unless far

      case @turn % (TURNS_AWAY * 4)
      when TURNS_AWAY then [event(far, :range, "out")]
      when TURNS_AWAY * 2 then [event(far, :range, "in")]
      else []
      end
    end

    # Each answers once a question, some a second time.
    def answers(status)
      return [] unless status["open"] && status["takes"]

      plan unless status["question"] == @question
      @question = status["question"]
      due, later = @due.partition { |(_number, _try), turn| turn <= @turn }
      @due = later.to_h
      due.map { |(number, _try), _| event(number, :answer, pressed(status), @question) }
    end

    def plan
      @due = @numbers.to_h { |number| [[number, 1], @turn + 1 + @random.rand(12)] }
      @numbers.sample(@numbers.length / 6, random: @random).each { |number| @due[[number, 2]] = @turn + 14 + @random.rand(4) }
    end

    def pressed(status)
      status["takes"] == "digits" ? @random.rand(1..500).to_s : status.fetch("keys").sample(random: @random)
    end
  end
end
