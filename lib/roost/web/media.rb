# frozen_string_literal: true

module Roost
  module Web
    # Files on slides: named by their content, so they are good for ever. What students sent is
    # not among them (Given).
    class Media < App
      get "/:file" do |file|
        path, type = Store::Media.new.find_shared(file)
        not_found unless path

        headers "content-security-policy" => "default-src 'none'; style-src 'unsafe-inline'; sandbox"
        cache_control :public, :immutable, max_age: 31_536_000
        send_file path, type: type, disposition: "inline"
      end
    end
  end
end
