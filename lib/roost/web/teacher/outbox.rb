# frozen_string_literal: true

module Roost
  module Web
    # The mail outbox that ships with the program. It shows mails with reset links, so only where it
    # was asked for, and to this machine itself.
    class Outbox < App
      OURS = %w[localhost 127.0.0.1 ::1].freeze

      # Another site whose name leads here has another name in the request.
      get "/" do
        host = request.host.to_s.delete("[]")
        not_found unless Address.local?(request) && (OURS.include?(host) || host == URI(Roost.settings.base_url).host)
        page("outbox", title: "Outbox", layout: "layouts/plain", mails: Store::Outbox.new.latest)
      end
    end
  end
end
