# frozen_string_literal: true

require "forwardable"

module Roost
  module Core
    module Session
      # What happened in a session, as it is looked back on: results, sheets and pictures of answers are functions of this. It
      # knows every attempt at every question. Where the session stands now a Moment says.
      class Record
        NONE = {}.freeze
        private_constant :NONE

        extend Forwardable
        include Times

        def_delegators :@about, :id, :title, :options, :begun_at, :counts
        def_delegators :@people, :roll, :teams, :in_order, :missing, :forgotten?
        def_delegators :@facts, :openings, :curation
        def_delegators :@given, :answers, :shown, :sat, :commands, :hand

        # Of About, People and the rest, what is asked for most.
        # rules:: Rules the session runs under
        attr_reader :lesson, :seats, :facts, :memory, :rules

        # @param about [About]
        # @param people [People]
        # @param facts [Facts]
        # @param given [Given]
        # @param memory [Memory] of the record of a moment ago, where there is one
        def initialize(about:, people:, facts:, given:, memory: Memory.new)
          @about = about
          @lesson = about.lesson
          @rules = about.options.rules
          @people = people
          @seats = people.seats
          @facts = facts
          @given = given
          @memory = memory
          memory.look_at(self)
          @worked_out = Hash.new { |all, name| all[name] = {} }
          @all_answers = {}
          @scorings = {}
          @can_read = {}
          @unread = {}
          freeze
        end

        # By how much somebody came after the lesson had begun.
        # @param seat [Seat]
        # @return [Float, nil] seconds; nil when they were there
        def late(seat) = begun_at && seat.came_at && seat.came_at > begun_at ? seat.came_at - begun_at : nil

        # @param attempt [Integer, nil] nil for the latest
        # @return [Opening, nil] of a slide
        def opening(slide_id, attempt = nil)
          return facts.opening(slide_id) if attempt.nil? && @about.live

          facts.opening(slide_id, attempt || latest(slide_id)) || facts.openings[slide_id]&.last
        end

        # Which attempt at a question is looked at: the one that counts of a seat, else the latest that was opened.
        # @param seat_id [Integer, nil]
        # @return [Integer] from 1
        def attempt(slide_id, seat_id = nil) = (seat_id && counted[seat_id]&.attempt) || latest(slide_id)

        # Whether a question was set aside: it counts for nobody.
        def set_aside?(slide_id) = @facts.set_aside.include?(slide_id)

        # All attempts of a seat at a question, also those that don't count.
        # @return [Hash{Integer=>Answer}] number of the attempt to what was given, in order
        def attempts(slide_id, seat_id)
          numbers = answers.keys.filter_map { |id, attempt| attempt if id == slide_id }.sort
          numbers.to_h { |attempt| [attempt, answer(slide_id, seat_id, attempt: attempt)] }.compact
        end

        # The mean share over several attempts of a seat, where that is what counts.
        # @return [Rational, nil]
        def mean_share(seat_id) = counted[seat_id]&.share

        # @param attempt [Integer, nil] nil for the one that counts
        # @return [Answer, nil]
        def answer(slide_id, seat_id, attempt: nil)
          attempt ? given_in(slide_id, attempt).to_h[seat_id] : all_answers(slide_id)[seat_id]
        end

        # Answers with something in them, by seat id, in the order of the seats.
        # @return [Hash{Integer=>Answer}]
        def given(slide_id)
          @can_read[slide_id] ||= memory.of_answers(self, :given, slide_id) { |before| readable(slide_id, before || NONE) }
        end

        # What was typed and can't be read as an answer, by seat id.
        # @return [Hash{Integer=>Answer}]
        def unread(slide_id)
          @unread[slide_id] ||= memory.of_answers(self, :unread, slide_id) do
            all_answers(slide_id).reject { |_, answer| answer.readable? }
          end
        end

        # Whether a slide's question was only leafed through: nobody answered, and nobody could have.
        # It counts for nobody, as if it had never been asked.
        # @param attempt [Integer, nil] nil for the one that counts
        def passed_over?(slide_id, attempt = nil)
          opening = opening(slide_id, attempt)
          return false if opening.nil? || !rules.passing_over?

          slide = lesson.slide(slide_id)
          opening.passed?(rules.reading_first? ? slide.reading_words : slide.words) && unanswered?(slide_id, attempt)
        end

        # What the class gave on a slide, in full.
        def tally(slide_id)
          once(:tally, slide_id) do
            values = given(slide_id).sort_by { |_, answer| answer.arrival }.to_h.transform_values(&:value)
            memory.tallies[slide_id] = lesson.slide(slide_id).prompt.gathered(values, names: names, teams: team_names,
                                                                                      curation: curation(slide_id),
                                                                                      before: memory.tallies[slide_id])
          end
        end

        # @return [Hash{Integer=>String}] seat id to name
        def names = once(:names) { memory.names(seats) }

        # @return [Hash{Integer=>String}] seat id to the name of its team, of those that are in one
        def team_names
          once(:team_names) { teams.empty? ? NONE : seats.to_h { |seat| [seat.id, team_of(seat)&.name] }.compact }
        end

        # @param seat [Seat]
        # @return [Team, nil]
        def team_of(seat) = teams.find { |team| team.id == seat.team_id }

        # @return [Seat, nil]
        def seat(seat_id) = once(:by_id) { seats.to_h { |each| [each.id, each] } }[seat_id]

        # What an answer earns.
        # @return [Rational, nil] nil where nothing is marked
        def mark(answer) = (scoring(answer.slide_id).mark(answer, worth(answer)) if answer.readable?)

        # @param attempt [Integer, nil] nil for the one that counts
        # @param steps [Array<Step>, nil] to which it is added how mark and points come about
        # @return [Outcome]
        def outcome(slide_id, seat_id, attempt: nil, steps: nil)
          own = answer(slide_id, seat_id, attempt: attempt)
          answer = of_teams.as_one?(slide_id, attempt) ? of_teams.of(slide_id, seat_id, attempt) : own
          whose = answer&.seat_id || seat_id
          hand = hand_mark(slide_id, seat_id, attempt)
          shown_at = shown_at(slide_id, whose, attempt: attempt)
          scoring(slide_id, whose, attempt: attempt).outcome(answer, shown_at, worth(answer), hand: hand, steps: steps)
        end

        # Who was in which team when a question was opened.
        # @return [Hash{Integer=>Integer}] seat id to team id
        def teams_at(slide_id, attempt = attempt(slide_id)) = @given.teams_at.to_h.fetch([slide_id, attempt], NONE)

        # What teams gave that answer as one.
        # @return [TeamAnswers]
        def of_teams = once(:of_teams) { TeamAnswers.new(self) }

        # @param attempt [Integer, nil] nil for the one that counts
        # @return [Rational, nil] what a teacher gave by hand
        def hand_mark(slide_id, seat_id, attempt = nil)
          hand.any? ? hand.fetch([slide_id, attempt || attempt(slide_id, seat_id)], NONE)[seat_id] : nil
        end

        # Whether somebody was marked by hand on a question, so that all who answered are.
        def by_hand?(slide_id) = hand.any? { |(id, _), marks| id == slide_id && marks.any? }

        # How a question is scored.
        # @param seat_id [Integer, nil] nil for one with the usual time
        # @param style [Game::Style, nil] nil for the one it was played in
        def scoring(slide_id, seat_id = nil, attempt: nil, style: nil)
          factor = (seat_id && seat(seat_id)&.factor) || 1r
          (((@scorings[style&.name] ||= {})[attempt] ||= {})[slide_id] ||= {})[factor] ||=
            Scoring.new(lesson.slide(slide_id), style: style || style(slide_id, attempt), opening: opening(slide_id, attempt),
                                                rules: rules, factor: factor, by_hand: by_hand?(slide_id),
                                                set_aside: set_aside?(slide_id))
        end

        # How a question is played.
        # @param attempt [Integer, nil] nil for the one that counts
        # @return [Game::Style]
        def style(slide_id, attempt = nil)
          return Game::Plain.new unless lesson.game?(slide_id)

          facts.play_at(slide_id, opening(slide_id, attempt))&.played || Game::Style.make("points", speed: options.speed)
        end

        # How everybody did on one slide. Where nothing depends on the time each took, those who gave alike have one and the same.
        # @return [Hash{Integer=>Outcome}] seat id to outcome
        def outcomes(slide_id)
          scoring = scoring(slide_id)
          return seats.to_h { |seat| [seat.id, outcome(slide_id, seat.id)] } if scoring.timed? || of_teams.as_one?(slide_id)

          alike = alike(slide_id, scoring).merge(marked_by_hand(slide_id))
          reached = scoring.outcome(nil, 0.0)
          missed = scoring.outcome(nil, nil)
          seats.to_h { |seat| [seat.id, alike[seat.id] || (shown?(slide_id, seat.id) ? reached : missed)] }
        end

        # Whether a question that a seat never saw counts as answered wrongly all the same: one of a sitting that has ended.
        def owed?(slide_id, seat_id)
          rules.whole_sittings? && sat_through(seat_id).include?(slide_id) && !set_aside?(slide_id) &&
            lesson.slide(slide_id).prompt.keyed?
        end

        # Questions that a seat was shown, or answered, and that count.
        # @return [Array<Slide>]
        def asked_of(seat_id)
          lesson.prompts.select do |slide|
            next false if !openings.key?(slide.id) || set_aside?(slide.id) || passed_over?(slide.id)

            shown_at(slide.id, seat_id) || answer(slide.id, seat_id)
          end
        end

        # Whether they can be read as answers or not; the same object as a moment ago where nothing came.
        # @return [Hash{Integer=>Answer}] seat id to answer
        def all_answers(slide_id)
          @all_answers[slide_id] ||= of_teams.by_seat(slide_id) || counting(@given.answers, slide_id).to_h
        end

        private

        # @param answer [Answer, nil]
        # @return [Worth, nil] nil of what is not there, or can't be read
        def worth(answer) = (memory.worth(lesson.slide(answer.slide_id).prompt, answer.value) if answer&.readable?)

        # Worked out once; it follows from what does not change.
        def once(name, key = nil)
          known = @worked_out[name]
          known.key?(key) ? known[key] : known[key] = yield
        end

        def given_in(slide_id, attempt) = answers.fetch([slide_id, attempt], NONE)

        # @return [Hash{Integer=>CountedAttempts::Counted}] by seat; none where the room is asked
        def counted = once(:counted) { counts ? CountedAttempts.of(self) : NONE }

        # Where the room is asked.
        def latest(slide_id)
          @about.live ? facts.attempt(slide_id) : once(:latest, slide_id) { CountedAttempts.in_room(facts, answers, slide_id) }
        end

        # @param attempt [Integer, nil] nil for the one that counts
        def unanswered?(slide_id, attempt)
          return false if hand.fetch([slide_id, attempt || attempt(slide_id)], NONE).any?
          return given(slide_id).none? && unread(slide_id).none? if attempt.nil?

          prompt = lesson.slide(slide_id).prompt
          given_in(slide_id, attempt).to_h.values.all? { |each| each.readable? && prompt.blank_answer?(each.value) }
        end

        # Of what came to a question in all attempts, that of those which count.
        # @param parts [Hash] answers or shown
        def counting(parts, slide_id)
          return parts.fetch([slide_id, latest(slide_id)], NONE) unless @about.counts

          by_slide = once(:by_slide, parts.object_id) { parts.keys.group_by(&:first) }
          by_slide.fetch(slide_id, []).each_with_object({}) do |key, found|
            parts[key].to_h.each { |seat_id, what| found[seat_id] = what if counted[seat_id]&.attempt == key.last }
          end
        end

        # Of the attempt of a seat that counts, or of its quizzes.
        # @return [Array<String>] ids of the slides of its sittings that have ended
        def sat_through(seat_id)
          once(:sat_through, seat_id) do
            counts ? sat.fetch([seat_id, attempt(nil, seat_id)], []) : sat.select { |(id, _), _| id == seat_id }.values.flatten
          end
        end

        # @yieldparam answer [Answer]
        # @yieldparam seats [AnswerSet::Seats, Hash] that gave it
        # @yieldparam worth [Worth, nil] nil of what can't be read
        def each_alike(slide_id)
          of_all = if counts || of_teams.as_one?(slide_id)
                     all_answers(slide_id)
                   else
                     answers.fetch([slide_id, attempt(slide_id)],
                                   NONE)
                   end
          AnswerSet.alike(of_all).each do |answer, seats|
            yield answer, seats, worth(answer)
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

        # @return [Hash{Integer=>Outcome}]
        def marked_by_hand(slide_id)
          return NONE unless by_hand?(slide_id)

          seats.select { |seat| hand_mark(slide_id, seat.id) }.to_h { |seat| [seat.id, outcome(slide_id, seat.id)] }
        end

        # @param earlier [Hash{Integer=>Answer}] which of the answers before could be read
        def readable(slide_id, earlier)
          all = all_answers(slide_id)
          prompt = lesson.slide(slide_id)&.prompt
          return NONE if all.empty? || prompt.nil?

          seats.each_with_object({}) do |seat, given|
            answer = all[seat.id]
            next unless answer

            known = earlier[seat.id].equal?(answer)
            given[seat.id] = answer if known || (answer.readable? && !prompt.blank_answer?(answer.value))
          end
        end
      end
    end
  end
end
