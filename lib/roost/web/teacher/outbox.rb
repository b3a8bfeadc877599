# frozen_string_literal: true

module Roost
  module Web
    # The mail outbox that ships with the program. It shows mails with reset links, so only where it
    # was asked for, and to this machine itself.
    class Outbox < App
      get "/" do
        not_found unless Address.local?(request)
        page("outbox", title: "Outbox", layout: "layouts/plain", mails: Store::Outbox.new.latest)
      end
    end
  end
end
