# frozen_string_literal: true

# Where the teacher approves new devices, a name is not enough to come in.
RSpec.describe "The door of a lesson" do
  let(:account) { teacher }
  let(:session) { kept_session(account) }

  def join(name)
    post "/join", code: session.code, name: name
    last_response
  end

  it "keeps a device that has not been here out until the teacher lets it in, and lets it come back by itself" do
    expect(join("Ada").status).to eq(303)
    ada = rack_mock_session.cookie_jar.to_hash
    command(session, "by_hand")
    clear_cookies
    expect(join("Otto").body).to include(Roost::Operations::ParticipantLookup::BY_HAND)
    otto = rack_mock_session.cookie_jar.to_hash
    clear_cookies
    sign_in
    expect(get("/desk/#{session.id}").body).to include("Somebody\n  wants to join as “<strong>otto</strong>”.")
    post_form "/desk/#{session.id}/names", name: "otto"
    clear_cookies
    otto.each { |name, value| set_cookie("#{name}=#{value}") }
    expect(join("Otto").status).to eq(303)
    clear_cookies
    ada.each { |name, value| set_cookie("#{name}=#{value}") }
    expect(join("Ada B").status).to eq(303)
  end
end
