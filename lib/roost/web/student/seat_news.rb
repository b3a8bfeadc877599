# frozen_string_literal: true

module Roost
  module Web
    # What happens at a seat, in sentences for whoever does not see it happen: the device says those
    # that are new (assets/js/seat/news.js). What the student does herself is said by the device alone.
    module SeatNews
      STATUS = { right: "Right.", part: "Partly right.", wrong: "Not right this time.", blank: "You gave no answer.",
                 set_aside: "This question doesn't count." }.freeze

      class << self
        # @param view [Core::Session::Views::Seat]
        # @return [Array<String>]
        def of(view)
          return [] unless view.phase == "live"

          [view.talk&.words, round(view.round), pair(view.pair), answering(view), *told(view), own_end(view.own_end),
           *put_up(view)].compact
        end

        # What the page is called: where one is.
        def title(view)
          case view.phase
          when "lobby" then "Waiting for #{view.title}"
          when "ended" then "#{view.title} has ended"
          when "live"
            return view.round.title if view.round && view.round.stage != :question

            "Slide #{view.place + 1} of #{view.total}: #{view.slide.name}"
          end
        end

        private

        def round(round) = round&.stage == :beginning ? "Game round: #{round.title}. #{round.style.sentence}" : nil

        def pair(pair) = pair && "You talk with #{pair.names.join(" and ")}: number #{pair.number}."

        def answering(view)
          return nil unless view.slide.prompt && view.opened

          view.open ? "Answers are open." : "Answers are closed."
        end

        def told(view)
          status = view.own&.status if view.key || view.standing
          [STATUS[status], standing(view.standing)]
        end

        def own_end(own)
          own && [("Place #{own.rank} of #{own.of}" if own.rank),
                  "#{own.points} #{own.points == 1 ? "point" : "points"}."].compact.join(", ")
        end

        def standing(standing)
          return nil unless standing

          points = "#{standing.points} #{standing.points == 1 ? "point" : "points"}"
          return "#{points} from you." unless standing.rank
          return "Your team is in place #{standing.team.rank} of #{standing.team.of}." if standing.team

          "Place #{standing.rank} of #{standing.of}, with #{points}."
        end

        def put_up(view)
          lit = view.spotlights.length
          if lit.positive? then [lit == 1 ? "One answer is shown." : "#{lit} answers are shown."]
          elsif view.tally && !view.open then ["What the class answered is shown."]
          else []
          end
        end
      end
    end
  end
end
