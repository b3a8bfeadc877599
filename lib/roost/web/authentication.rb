# frozen_string_literal: true

require "mail"
require "roda"

module Roost
  module Web
    # Teachers' accounts: Rodauth as a middleware in front of the teachers' pages.
    # Mails go to the outbox that ships with the program.
    class Authentication < Roda
      include Rendering

      LONGEST_NAME = 80

      plugin :middleware
      plugin :rodauth, csrf: false, render: false do
        enable :argon2, :login, :logout, :create_account, :reset_password, :lockout

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
        unlock_account_request_route "unlock-request"
        unlock_account_route "unlock"

        login_param "email"
        login_label "Email"
        require_login_confirmation? false
        require_password_confirmation? false
        password_minimum_length 10
        password_maximum_bytes 1024
        max_invalid_logins 10
        login_redirect "/lessons"
        create_account_redirect "/lessons"
        logout_redirect "/sign-in"
        reset_password_redirect "/sign-in"
        login_return_to_requested_location? true
        already_logged_in { redirect("/lessons") }
        domain { URI(Roost.settings.base_url).host }

        login_notice_flash nil
        logout_notice_flash nil
        login_error_flash "That didn't work. Check the email and the password."
        no_matching_login_message "doesn't match an account here"
        invalid_password_message "isn't right"
        login_does_not_meet_requirements_message { login_requirement_message }
        login_not_valid_email_message "isn't a whole email address"
        already_an_account_with_this_login_message "has an account here already: sign in instead"
        password_does_not_meet_requirements_message { password_requirement_message }
        password_too_short_message { "needs at least #{password_minimum_length} characters" }
        login_page_title "Sign in"
        create_account_page_title "Make an account"
        reset_password_request_page_title "A new password"
        reset_password_page_title "Choose a new password"
        unlock_account_request_page_title "Account locked"
        unlock_account_page_title "Unlock your account"
        logout_page_title "Sign out"
        create_account_error_flash "The account couldn't be made. See below."
        create_account_notice_flash "Welcome to Amber Roost."
        require_login_error_flash "Sign in to go on."
        reset_password_email_sent_notice_flash "A mail with a link is in the outbox."
        reset_password_email_subject "Amber Roost: a new password"
        unlock_account_email_subject "Amber Roost: unlock your account"
        reset_password_email_body { "Choose a new password here, within a day:\n\n#{reset_password_email_link}\n" }
        unlock_account_email_body { "Unlock your account here, within a day:\n\n#{unlock_account_email_link}\n" }

        email_from "roost@localhost"
        send_email do |email|
          Store::Outbox.new.add(recipient: Array(email.to).join(", "), subject: email.subject, body: email.body.to_s)
        end

        before_create_account do
          name = Core::Text.read(param("name"), limit: LONGEST_NAME, what: "Your name", lines: false)
          reason = name.ok? && name.value.empty? ? "is needed: students and colleagues see it" : name.reason
          throw_error_status(422, "name", reason) if reason
          account[:name] = name.value
        end

        auth_class_eval do
          def view(page, title) = scope.page("account/#{page}", title: title, layout: "layouts/account", rodauth: self)
          def render(page) = scope.partial("account/#{page}", rodauth: self)
        end
      end

      route do |request|
        env["rodauth"] = rodauth
        request.rodauth
        env["roost.notice"] = flash["notice"] || flash["error"]
        nil
      end

      def notice = flash["notice"] || flash.now["notice"]
      def complaint = flash["error"] || flash.now["error"]
      def csrf = Rack::Protection::AuthenticityToken.token(env["rack.session"])
    end
  end
end
