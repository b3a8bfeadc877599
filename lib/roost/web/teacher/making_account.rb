# frozen_string_literal: true

module Roost
  module Web
    # Making an account from a link: of a mail that shows whose address it is, of an invitation, or the one for the first.
    module MakingAccount
      SHORTEST_PASSWORD = 10 # characters
      LONGEST_PASSWORD = 1024 # bytes
      USED = "That link isn't good any more. Ask the teacher who gave it to you for another."

      # Finishes making an account: whoever has the mail chooses the password, so that nobody knows it who only typed the
      # address.
      def welcome(request)
        key = request.params["key"].to_s[0, 80]
        request.get { welcome_page(key) }
        request.post do
          sign_up = Operations::SignUp.new
          gone unless sign_up.waiting?(key)
          reason = password_refusal(request.params["password"])
          next welcome_page(key, reason) if reason

          email = sign_up.finish(key, rodauth.password_hash(request.params["password"])) || gone
          enter(email)
        end
      end

      def welcome_page(key, reason = nil)
        response.status = 422 if reason
        page("account/welcome", title: "Your account", layout: "layouts/account", key: key, reason: reason)
      end

      # The link for the first account of all.
      def first_account(request)
        key = request.params["key"].to_s[0, 80]
        gone(Authentication::NO_ACCOUNT) unless Operations::FirstAccount.new.good?(key)
        request.get { form_page("set-up", { "time_zone" => Store::School.new.settings.time_zone }, key: key) }
        request.post { made(Operations::FirstAccount.new, "set-up", key, key: key) { |op, form| op.read(form) } }
      end

      # The link of an invitation.
      def invitation(request)
        key = request.params["key"].to_s[0, 80]
        accepting = Operations::AcceptInvitation.new
        about = accepting.about(key) || gone(USED)
        shown = { key: key, about: about, asks: accepting.asks?(about) }
        request.get { form_page("invitation", {}, **shown) }
        request.post do
          next asked(accepting, about, key, shown) if shown[:asks]

          made(accepting, "invitation", key, **shown) { |op, form| op.read(about, form) }
        end
      end

      # Makes the account of a form and signs in, or shows the form again with what is wrong.
      def made(operation, name, key, **shown)
        form = typed(request)
        about = yield(operation, form)
        about = about.and_then { |value| password(form["password"]).map { value } }
        return form_page(name, form, reason: about.reason, **shown) unless about.ok?

        email = operation.call(key, about.value, rodauth.password_hash(form["password"])) || gone(USED)
        enter(email)
      end

      # An address that nobody has shown to be right is asked by mail.
      def asked(accepting, about, key, shown)
        form = typed(request)
        teacher = accepting.read(about, form)
        return form_page("invitation", form, reason: teacher.reason, **shown) unless teacher.ok?

        Operations::SignUp.new.begin(**teacher.value, invitation: key)
        flash["notice"] = format(Authentication::SENT, teacher.value[:email][0, 100])
        request.redirect "/sign-in"
      end

      def typed(request) = request.params.transform_values { |value| value.is_a?(String) ? value : "" }

      def form_page(name, given, reason: nil, **shown)
        response.status = 422 if reason
        page("account/#{name}", title: "Your account", layout: "layouts/account", given: given, reason: reason, **shown)
      end

      def password(given)
        reason = password_refusal(given)
        reason ? Core::Reading.refused("The password #{reason}.") : Core::Reading.ok(given)
      end

      def enter(email)
        flash["notice"] = "Welcome to Amber Roost."
        rodauth.account_from_login(email)
        rodauth.login("welcome")
      end

      # @return [String, nil] what is wrong with a password, as the end of a sentence
      def password_refusal(password)
        return "is needed" unless password.is_a?(String) && !password.empty?
        return "is too long" if password.bytesize > LONGEST_PASSWORD

        "needs at least #{SHORTEST_PASSWORD} characters" if password.length < SHORTEST_PASSWORD
      end

      def gone(reason = "That link isn't good any more. Sign in, or make the account again.")
        flash["error"] = reason
        request.redirect "/sign-in"
      end
    end
  end
end
