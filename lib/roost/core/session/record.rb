# frozen_string_literal: true

module Roost
  module Core
    module Session
      # What happened in a session, as it is looked back on: results, sheets and pictures of answers are
      # functions of this. Where the session stands now a Moment says.
      #
      # openings:: Hash of slide id to [Opening], one an attempt, in order
      # seats::    [Seat] in order of joining
      # answers::  Hash of [slide id, attempt] to Hash of seat id to Answer
      # shown::    Hash of [slide id, attempt] to Hash of seat id to the time (epoch seconds) when
      #            the open prompt was sent to that seat's device
      # set_aside:: ids of slides whose question counts for nobody
      # curated::  Hash of slide id to Curation
      # tallies::  Hash of slide id to what was tallied of it so far, here or the moment before; what is
      #            tallied here is put into it, so that a chart can stay where it was
      # roll::     [Student] of the class it was given to; none without a class, or where nobody is to be known
      # teams::    [Team] of the session
      # shares:: Hash of seat id to the mean share over several attempts, of those of whom that counts
      # begun_at:: when the lesson began (epoch seconds), as far as that is known
      # sat::      Hash of seat id to ids of the slides of a sitting of theirs that has ended, of those that have one
      # before::   the Record of a moment ago; what is the same in both, as an object, is not worked out again
      class Record
        NONE = {}.freeze
        # Values of a question that are kept with what they are worth: one that is being written gives many.
        MOST_WORTHS = 5_000
        private_constant :NONE, :MOST_WORTHS

        attr_reader :id, :title, :lesson, :options, :openings, :seats, :answers, :shown, :tallies, :roll, :teams, :shares

        # What is shown may keep here what it knows, for the next record of the same seats and lesson.
        # @return [Hash]
        attr_reader :memory

        def initialize(id:, title:, lesson:, options:, openings:, seats:, answers:, shown:, set_aside: [], curated: {},
                       tallies: {}, roll: [], teams: [], shares: {}, sat: {}, begun_at: nil, before: nil)
          @id = id
          @title = title
          @lesson = lesson
          @options = options
          @openings = openings
          @seats = seats
          @answers = answers
          @shown = shown
          @set_aside = set_aside
          @curated = curated
          @tallies = tallies
          @roll = roll
          @teams = teams
          @shares = shares
          @sat = sat
          @begun_at = begun_at
          @fresh = {}
          @shown_to = {}
          @all_answers = {}
          @given, @unread, @names, @earlier = before&.same_class?(self) ? before.kept(self) : [{}, {}, nil, NONE]
          @memory = before&.same_class?(self) ? before.memory : {}
          @worths = before && before.lesson.equal?(lesson) ? before.worths : {}
        end

        # @param those [Array<#student_id, #name>] seats, or what is told of them
        # @return [Array] in the order of the class list, and after it by name who isn't on it
        def in_order(those)
          @places ||= roll.each_with_index.to_h { |student, place| [student.id, place] }
          those.sort_by { |each| [@places[each.student_id] || roll.length, each.name.downcase, each.name] }
        end

        # @return [Array<Student>] of the class, who have no seat
        def missing
          @missing ||= begin
            here = seats.to_h { |seat| [seat.student_id, true] }
            roll.reject { |student| here.key?(student.id) }
          end
        end

        # By how much somebody came after the lesson had begun.
        # @param seat [Seat]
        # @return [Float, nil] seconds; nil when they were there
        def late(seat) = @begun_at && seat.came_at && seat.came_at > @begun_at ? seat.came_at - @begun_at : nil

        # @return [Opening, nil] the latest of a slide
        def opening(slide_id) = openings[slide_id]&.last

        # Which attempt at a question is looked at: the latest.
        # @return [Integer] from 1
        def attempt(slide_id) = opening(slide_id)&.attempt || 1

        # Whether a question was set aside.
        def set_aside?(slide_id) = @set_aside.include?(slide_id)

        # @return [Answer, nil]
        def answer(slide_id, seat_id) = all_answers(slide_id)[seat_id]

        # Answers with something in them, by seat id, in the order of the seats.
        # @return [Hash{Integer=>Answer}]
        def given(slide_id)
          @given[slide_id] ||= all_answers(slide_id).empty? ? NONE : readable(slide_id, lesson.slide(slide_id)&.prompt)
        end

        # What was typed and can't be read as an answer, by seat id.
        # @return [Hash{Integer=>Answer}]
        def unread(slide_id) = @unread[slide_id] ||= all_answers(slide_id).reject { |_, answer| answer.readable? }

        # Whether a slide's question was only leafed through: nobody answered, and nobody could have.
        # It counts for nobody, as if it had never been asked.
        def passed_over?(slide_id)
          opening = opening(slide_id)
          return false if opening.nil? || !rules.passing_over?

          slide = lesson.slide(slide_id)
          opening.passed?(rules.reading_first? ? slide.reading_words : slide.words) && given(slide_id).none? &&
            unread(slide_id).none?
        end

        # What the class gave on a slide, in full.
        def tally(slide_id)
          @fresh[slide_id] ||= tallies[slide_id] = begin
            values = given(slide_id).sort_by { |_, answer| answer.arrival }.to_h.transform_values(&:value)
            curation = @curated.fetch(slide_id, Curation::BLANK)
            lesson.slide(slide_id).prompt.gathered(values, names: names, teams: team_names, curation: curation,
                                                           before: tallies[slide_id])
          end
        end

        # @return [Hash{Integer=>String}] seat id to name
        def names = @names ||= seats.to_h { |seat| [seat.id, seat.name] }

        # @return [Hash{Integer=>String}] seat id to the name of its team, of those that are in one
        def team_names
          @team_names ||= teams.empty? ? NONE : seats.to_h { |seat| [seat.id, team_of(seat)&.name] }.compact
        end

        # @param seat [Seat]
        # @return [Team, nil]
        def team_of(seat) = teams.find { |team| team.id == seat.team_id }

        # @return [Rules] the session runs under
        def rules = @rules ||= options.rules

        # @return [Seat, nil]
        def seat(seat_id) = (@by_id ||= seats.to_h { |each| [each.id, each] })[seat_id]

        # What an answer earns.
        # @return [Rational, nil] nil where nothing is marked
        def mark(answer) = (scoring(answer.slide_id).mark(answer, worth(answer)) if answer.readable?)

        # @return [Outcome]
        def outcome(slide_id, seat_id)
          answer = answer(slide_id, seat_id)
          scoring(slide_id, seat_id).outcome(answer, shown_at(slide_id, seat_id), (worth(answer) if answer&.readable?))
        end

        # How a question is scored.
        # @param seat_id [Integer, nil] nil for one with the usual time
        def scoring(slide_id, seat_id = nil)
          factor = (seat_id && seat(seat_id)&.factor) || 1r
          ((@scorings ||= {})[slide_id] ||= {})[factor] ||=
            Scoring.new(lesson.slide(slide_id), opening: opening(slide_id), set_aside: set_aside?(slide_id),
                                                play: Play.new(lesson.game?(slide_id), options.speed, rules, factor))
        end

        # How everybody did on one slide. Where nothing depends on the time each took, those who gave alike have one and the same.
        # @return [Hash{Integer=>Outcome}] seat id to outcome
        def outcomes(slide_id)
          scoring = scoring(slide_id)
          return seats.to_h { |seat| [seat.id, outcome(slide_id, seat.id)] } if scoring.points?

          alike = alike(slide_id, scoring)
          reached = scoring.outcome(nil, 0.0)
          missed = scoring.outcome(nil, nil)
          seats.to_h { |seat| [seat.id, alike[seat.id] || (shown?(slide_id, seat.id) ? reached : missed)] }
        end

        # How long each took for their answer to a question that counts, as far as it is known when it was shown.
        # @return [Hash{Integer=>Float}] seat id to seconds
        def seconds(slide_id)
          (@seconds ||= {})[slide_id] ||= set_aside?(slide_id) ? NONE : taken(slide_id)
        end

        # Whether a question that a seat never saw counts as answered wrongly all the same: one of a sitting that has ended.
        def owed?(slide_id, seat_id)
          rules.whole_sittings? && (@sat[seat_id]&.include?(slide_id) || false) && !set_aside?(slide_id) &&
            lesson.slide(slide_id).prompt.keyed?
        end

        # When a seat was sent a question; with a keypad, when it was put on the wall.
        # @return [Float, nil] nil when it never was
        def shown_at(slide_id, seat_id) = shown_to(slide_id)[seat_id] || on_wall(slide_id, seat_id)

        # Questions that a seat was shown, or answered, and that count.
        # @return [Array<Slide>]
        def asked_of(seat_id)
          lesson.prompts.select do |slide|
            next false if !openings.key?(slide.id) || set_aside?(slide.id) || passed_over?(slide.id)

            shown_at(slide.id, seat_id) || answer(slide.id, seat_id)
          end
        end

        # @return [Hash{Integer=>Integer}] seat id to points over these slides
        def points(slides)
          seats.to_h { |seat| [seat.id, slides.sum { |slide| outcome(slide.id, seat.id).points || 0 }] }
        end

        # @return [Hash{Integer=>Float}, AnswerSet::Seats] seat id to when the question was sent to its device
        def shown_to(slide_id) = @shown_to[slide_id] ||= shown.fetch([slide_id, attempt(slide_id)], NONE)

        # Whether they can be read as answers or not; the same object as a moment ago where nothing came.
        # @return [Hash{Integer=>Answer}] seat id to answer
        def all_answers(slide_id) = @all_answers[slide_id] ||= answers.fetch([slide_id, attempt(slide_id)], NONE).to_h

        protected

        attr_reader :worths

        def same_class?(other) = seats.equal?(other.seats) && lesson.equal?(other.lesson)

        # What was worked out of answers that another record has, too, by slide; the names; and all that was given.
        # @return [Array]
        def kept(other)
          same = ->(slide_id) { other.all_answers(slide_id).equal?(all_answers(slide_id)) }
          [*[@given, @unread].map { |each| each.select { |slide_id, _| same.call(slide_id) } }, @names, @given]
        end

        private

        # Worked out once for each value that was given to a question.
        # @return [Worth]
        def worth(answer)
          of_slide = @worths[answer.slide_id] ||= {}.compare_by_identity
          of_slide.clear if of_slide.length >= MOST_WORTHS
          of_slide[answer.value] ||= Worth.of(lesson.slide(answer.slide_id).prompt, answer.value)
        end

        # @yieldparam answer [Answer]
        # @yieldparam seats [AnswerSet::Seats, Hash] that gave it
        # @yieldparam worth [Worth, nil] nil of what can't be read
        def each_alike(slide_id)
          AnswerSet.alike(answers.fetch([slide_id, attempt(slide_id)], NONE)).each do |answer, seats|
            yield answer, seats, (worth(answer) if answer.readable?)
          end
        end

        # Of those who gave something.
        # @return [Hash{Integer=>Outcome}]
        def alike(slide_id, scoring)
          outcomes = {}
          each_alike(slide_id) do |answer, seats, worth|
            outcome = scoring.outcome(answer, 0.0, worth)
            seats.each_key { |id| outcomes[id] = outcome }
          end
          outcomes
        end

        def taken(slide_id)
          times = {}
          each_alike(slide_id) do |_answer, seats, worth|
            next if worth.nil? || worth.blank

            seats.to_h.each do |id, received_at|
              shown_at = shown_at(slide_id, id)
              times[id] = scoring(slide_id, id).seconds(received_at, shown_at) if shown_at
            end
          end
          times
        end

        def shown?(slide_id, seat_id) = shown_to(slide_id).key?(seat_id) || !on_wall(slide_id, seat_id).nil?

        def on_wall(slide_id, seat_id)
          keypad = seat(seat_id)
          opening = opening(slide_id)
          return nil unless keypad&.keypad && opening && rules.keypads_see_wall?

          came = keypad.came_at || opening.opened_at
          ends = opening.ends_at
          [came, opening.opened_at].max if ends.nil? || came <= ends
        end

        def readable(slide_id, prompt)
          here = prompt ? all_answers(slide_id) : NONE
          earlier = @earlier.fetch(slide_id, NONE)
          seats.each_with_object({}) do |seat, given|
            answer = here[seat.id]
            next unless answer

            known = earlier[seat.id].equal?(answer)
            given[seat.id] = answer if known || (answer.readable? && !prompt.blank_answer?(answer.value))
          end
        end
      end
    end
  end
end
