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

  # Presses the button of a form of the page, with what stands in it as a browser sends it.
  # @param action [String] CSS of what its address is like, as in "='/school'" or "$='/move'"
  # @param changed [Hash] what is filled in otherwise; nil: left out
  def press(action, **changed)
    submit(Nokogiri::HTML(last_response.body).at_css("form[action#{action}]"), **changed)
  end

  # @param form [Nokogiri::XML::Element]
  def submit(form, **changed)
    sent = form.css("input, select, textarea").reject { |field| unsent?(field) }.group_by { |field| field["name"] }
    fields = sent.to_h do |name, all|
      [name.delete_suffix("[]").to_sym, name.end_with?("[]") ? all.map { |each| value_of(each) } : value_of(all.last)]
    end
    post_form form["action"] || form["hx-post"], **fields.merge(changed).compact
  end

  def unsent?(field)
    field["name"].nil? || field["disabled"] || field["type"] == "file" ||
      (%w[checkbox radio].include?(field["type"]) && !field["checked"])
  end

  def value_of(field)
    case field.name
    when "textarea" then field.text
    when "select" then (field.at_css("option[selected]") || field.at_css("option"))&.[]("value").to_s
    else field["value"].to_s
    end
  end

  def sign_in(email = "falk@heronsgate.example", password = "sallow marsh at dusk")
    get "/sign-in"
    @token = token
    post_form "/sign-in", email: email, password: password
    get "/lessons"
    @token = token
  end
end
