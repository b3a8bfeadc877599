# frozen_string_literal: true

module Roost
  module Web
    # An app for signed-in teachers. Every route is scoped to the teacher: what is not
    # hers is not found.
    class TeacherApp < App
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

        def own_session(id, deleted: false)
          Store::Sessions.new.of_teacher(account_id, whole(id), deleted: deleted) || not_found
        end
      end
    end
  end
end
