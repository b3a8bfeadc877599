# frozen_string_literal: true

module Roost
  module Web
    # The mail outbox that ships with the program. It shows mails with reset links, so
    # only to this machine itself.
    class Outbox < App
      LOCAL = %w[127.0.0.1 ::1].freeze

      get "/" do
        not_found unless LOCAL.include?(Address.of(request))
        page("outbox", title: "Outbox", layout: "layouts/plain", mails: Store::Outbox.new.latest)
      end
    end
  end
end
