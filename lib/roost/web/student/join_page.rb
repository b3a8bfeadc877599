# frozen_string_literal: true

module Roost
  module Web
    # The page at which a code and a name are typed.
    module JoinPage
      # @param refusal [String, nil]
      def join_page(code: nil, refusal: nil)
        page("front/join", title: "Join a lesson", layout: "layouts/plain", bundle: "seat", code: code,
                           name: params["name"].to_s[0, 80], refusal: refusal)
      end
    end
  end
end
