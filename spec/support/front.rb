# frozen_string_literal: true

# The whole Rack application with an engine that is not started, for rack-test.
module Front
  ENGINE = Roost::Web::Application.engine
  ENV["ROOST_OUTBOX"] = "1"
  APP = Roost::Web::Application.build(ENGINE)

  def app = APP

  def token
    last_response.body[/name="authenticity_token" value="([^"]+)"/, 1] || last_response.body[/X-CSRF-Token":"([^"]+)"/, 1]
  end

  def post_form(path, **fields)
    post path, fields.transform_keys(&:to_s).merge("authenticity_token" => @token ||= token)
  end

  def sign_in(email = "falk@heronsgate.example", password = "sallow marsh at dusk")
    get "/sign-in"
    @token = token
    post_form "/sign-in", email: email, password: password
    get "/lessons"
    @token = token
  end
end
