# frozen_string_literal: true

require "argon2"
require "mail"
require "roda"
require "securerandom"

module Roost
  module Web
    # Teachers' accounts: Rodauth as a middleware in front of the teachers' pages.
    # Mails go to the outbox that ships with the program.
    class Authentication < Roda
      include Rendering
      include MakingAccount

      SENT = "If all is well, a mail with a link is on its way to %s."
      SIGNED_OUT = "You are signed out. Sign in in another window of this browser, then continue here."
      NO_ACCOUNT = "Nobody has an account yet. The link for the first one is printed where Amber Roost was started. It works " \
                   "for an hour; start Amber Roost again for another."
      NO_MAIL = "This Amber Roost sends no mail. The teacher who keeps the school's settings can give you a link."
      WAIT = "Too many wrong tries just now. Wait a minute, then try again."
      LONGEST_SIGN_IN = 90 * 24 * 3600 # seconds
      # A password nobody has, hashed as all are.
      DECOY = Argon2::Password.create(SecureRandom.hex)

      plugin :middleware
      plugin :rodauth, csrf: false, render: false do
        enable :argon2, :login, :logout, :create_account, :reset_password, :change_password, :active_sessions

        db { Store::Database.connection }
        require_bcrypt? false
        account_password_hash_column :password_hash
        skip_status_checks? true
        set_deadline_values? true
        hmac_secret { Roost.settings.session_secret }
        base_url { Roost.settings.base_url }

        login_route "sign-in"
        logout_route "sign-out"
        create_account_route "sign-up"
        reset_password_request_route "forgotten"
        reset_password_route "new-password"
        change_password_route "change-password"

        login_param "email"
        login_label "Email"
        require_login_confirmation? false
        require_password_confirmation? false
        create_account_set_password? false
        password_minimum_length MakingAccount::SHORTEST_PASSWORD
        password_maximum_bytes MakingAccount::LONGEST_PASSWORD
        modifications_require_password? true
        new_password_param "new-password"
        session_inactivity_deadline 14 * 24 * 3600
        session_lifetime_deadline LONGEST_SIGN_IN
        login_redirect "/today"
        create_account_redirect "/today"
        logout_redirect "/sign-in"
        reset_password_redirect "/sign-in"
        change_password_redirect "/account"
        active_sessions_redirect "/sign-in"
        active_sessions_error_flash "You were signed out. Sign in to continue."
        login_return_to_requested_location? true
        already_logged_in { redirect("/today") }
        domain { URI(Roost.settings.base_url).host }

        # As they come back out of the cookie.
        flash_error_key "error"
        flash_notice_key "notice"
        login_notice_flash nil
        logout_notice_flash nil
        login_error_flash "That didn't work. Check the email and the password."
        # What is wrong is not told apart: neither in words nor in status.
        no_matching_login_error_status 401
        no_matching_login_message "isn't right"
        invalid_password_message "isn't right"
        login_does_not_meet_requirements_message { login_requirement_message }
        login_not_valid_email_message "isn't a whole email address"
        password_does_not_meet_requirements_message { password_requirement_message }
        password_too_short_message { "needs at least #{password_minimum_length} characters" }
        login_page_title "Sign in"
        create_account_page_title "Make an account"
        reset_password_request_page_title "A new password"
        reset_password_page_title "Choose a new password"
        change_password_page_title "Change password"
        same_as_existing_password_message "is the one you have"
        logout_page_title "Sign out"
        create_account_error_flash "The account couldn't be made. See below."
        require_login_error_flash "Sign in to continue."
        change_password_notice_flash "Password changed. All other devices are signed out."
        change_password_error_flash "The password wasn't changed. See below."
        no_matching_reset_password_key_error_flash "That link isn't good any more. Ask for another."
        reset_password_email_subject "Amber Roost: a new password"
        reset_password_email_body { "Choose a new password here, within a day:\n\n#{reset_password_email_link}\n" }

        email_from { Roost.settings.mail_from }
        send_email do |email|
          Operations::SendMail.new.call(recipient: Array(email.to).join(", "), subject: email.subject, body: email.body.to_s)
        end

        before_login_route { scope.slow_down if request.post? }
        # Whoever was stopped is told no more than anybody with a wrong password.
        before_login { throw_error_reason(:stopped, 401, login_param, no_matching_login_message) if account[:stopped_at] }
        after_login_failure { scope.guard.failed(login_param_value) }
        after_login { scope.guard.succeeded(account_id, login_param_value) { DeviceCookie.give(response, DeviceCookie::TEACHER) } }
        active_sessions_insert_hash { super().merge(device: scope.env["HTTP_USER_AGENT"].to_s.scrub("")[0, 200]) }

        # The same answer, whether or not there is such an account, and when a mail went just now; also for whoever has to wait
        # because of what others tried.
        before_reset_password_request_route do
          if request.post?
            known = account_from_login(login_param_value) && !reset_password_email_recently_sent?
            known ? mail_reset_link : Operations::SendMail.new.call(recipient: "x@x", subject: "", body: "", pretend: true)
            set_notice_flash format(SENT, login_param_value[0, 100])
            redirect "/sign-in"
          end
        end

        before_create_account do
          name = Core::Text.read(param("name"), limit: Core::NewTeacher::LONGEST_NAME, what: "Your name", lines: false)
          reason = name.ok? && name.value.empty? ? "is needed: students and colleagues see it" : name.reason
          throw_error_status(422, "name", reason) if reason
          scope.slow_down
          scope.guard.failed(account[:email])
          Operations::SignUp.new.begin(email: account[:email], name: name.value)
          set_notice_flash format(SENT, account[:email][0, 100])
          redirect "/sign-in"
        end

        auth_class_eval do
          def view(page, title) = scope.page("account/#{page}", title: title, layout: "layouts/account", rodauth: self)
          def render(page) = scope.partial("account/#{page}", rodauth: self)

          # The present sign-in as it is kept, nil where there is none.
          def sign_in = (key = session[session_id_session_key]) && compute_hmac(key)

          # Its use is noted once a minute: a command waits for no write but its own.
          def currently_active_session?
            Store::SignIns.new.used_lately?(session_value, sign_in, longest: LONGEST_SIGN_IN) || super
          end

          # A page that asks for a part of itself, or listens, stays where it is.
          def no_longer_active_session
            clear_session
            return (scope.turn_away unless scope.stream?) if scope.part?

            set_session_return_to_path(login_redirect_session_key, request.fullpath)
            set_notice_flash active_sessions_error_flash
            redirect active_sessions_redirect
          end

          # Pages ask for it after what this middleware said has been kept for the next page (Roda's flash).
          def login_required
            return scope.turn_away if scope.part?

            session["_flash"] = { flash_notice_key => require_login_error_flash }
            super
          end

          def password_hash(password) = Hashing.turn { super }

          def password_hash_match?(hash, password) = Hashing.turn { super }

          # As much work as a password that is wrong.
          def after_no_matching_login
            Hashing.turn { Argon2::Password.verify_password(param(password_param), DECOY) }
            scope.guard.failed(login_param_value)
          end

          def mail_reset_link
            generate_reset_password_key_value
            transaction do
              create_reset_password_key
              send_reset_password_email
            end
          end
        end
      end

      route do |request|
        env["rodauth"] = rodauth
        rodauth.check_active_session
        env["roost.sign_in"] = rodauth.sign_in
        answered(request)
        env["roost.notice"] = flash["notice"] || flash["error"]
        nil
      end

      def answered(request)
        case request.path
        when "/welcome" then welcome(request)
        when "/invitation" then invitation(request)
        when "/set-up" then first_account(request)
        end
        request.rodauth
      rescue Hashing::Busy
        wait_a_moment
      end

      def address = Address.of(request)

      # Why nobody gets an account, or a new password, by a mail; nil where they do.
      def by_link
        return NO_ACCOUNT unless Store::Accounts.new.any?

        NO_MAIL unless Roost.settings.mails?
      end

      def invited_only? = Store::School.new.invited_only?

      # Ends a request that comes too soon after wrong ones.
      def slow_down
        wait_a_moment if guard.wait?(rodauth.param(rodauth.login_param))
      end

      def guard = Operations::GuardSignIn.new(address, DeviceCookie.of(request, DeviceCookie::TEACHER))

      def wait_a_moment
        response.status = 429
        flash.now["error"] = WAIT
        response.write(page("account/wait", title: "One moment", layout: "layouts/account"))
        request.halt
      end

      def part? = Part.asked?(env)

      def stream? = request.path.start_with?("/stream/")

      # Ends a request of a page whose teacher is signed out.
      def turn_away
        response.status = 401
        response.write(partial("refusal", reason: SIGNED_OUT))
        request.halt
      end

      def notice = flash["notice"] || flash.now["notice"]
      def complaint = flash["error"] || flash.now["error"]
      def csrf = Rack::Protection::AuthenticityToken.token(env["rack.session"])
    end
  end
end
