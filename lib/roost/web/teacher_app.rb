# frozen_string_literal: true

module Roost
  module Web
    # An app for signed-in teachers. Every route is scoped to the teacher: what is not
    # hers is not found.
    class TeacherApp < App
      before { env["rodauth"].require_account }

      helpers do
        def account_id = env["rodauth"].session_value

        def teacher = Store::Accounts.new.name(account_id)

        def csrf = Rack::Protection::AuthenticityToken.token(session)

        def session = env["rack.session"]

        def notice = env["roost.notice"]

        def own_session(id, deleted: false)
          Store::Sessions.new.of_teacher(account_id, Integer(id.to_s, 10, exception: false), deleted: deleted) || not_found
        end
      end
    end
  end
end
