# frozen_string_literal: true

module Roost
  module Web
    # An app for signed-in teachers. Every route is scoped to the teacher: what is not
    # hers is not found.
    class TeacherApp < App
      MOST_NAMED = 6

      before { env["rodauth"].require_authentication }

      helpers do
        def account_id = env["rodauth"].session_value

        def teacher = Store::Accounts.new.name(account_id)

        # Whether she keeps the school's settings.
        def keeper? = Store::School.new.keeper?(account_id)

        def csrf = Rack::Protection::AuthenticityToken.token(session)

        def session = env["rack.session"]

        def notice = env["roost.notice"]

        # One answer as SVG, for kinds whose answers are pictures; others are not found.
        # @param under [Core::Picture, nil] what it lies on, when that is wanted, too
        def answer_svg(row, slide, seat_id, under: nil)
          value = slide&.prompt && Operations::ValueGiven.new.call(row, slide.id, seat_id)
          not_found unless value && kind_view?(slide.prompt, "picture")
          drawn(slide.prompt, value, under: under)
        end

        # Students by name, each with the way to what they did.
        # @return [String] HTML
        def names_of(row, seats, most: MOST_NAMED)
          named = seats.first(most).map do |seat|
            %(<a href="/results/#{row.id}/students/#{seat.id}">#{Rack::Utils.escape_html(seat.name)}</a>)
          end
          more = seats.length - named.length
          listed(more.positive? ? [*named, "#{more} more"] : named)
        end

        # One, two and three.
        def listed(words) = words.length > 1 ? "#{words[0..-2].join(", ")} and #{words.last}" : words.first

        def own_session(id, deleted: false)
          Store::Sessions.new.of_teacher(account_id, whole(id), deleted: deleted) || not_found
        end
      end
    end
  end
end
