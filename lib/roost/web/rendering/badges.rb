# frozen_string_literal: true

module Roost
  module Web
    # How a question went, as a sign with words for those who don't see it: one text for each status, since a page of results has
    # thousands.
    module Badges
      SIGNS = { right: ["✓", "right"], part: ["◐", "in part"], wrong: ["✗", "wrong"], given: ["✎", "answered"],
                to_mark: ["…", "still to be marked"], set_aside: ["∕", "left out"], unread: ["?", "typed, but no answer"],
                late: ["⏱", "late, not counted"], blank: ["–", "no answer"], not_reached: ["·", "not reached"] }.freeze
      HTML = SIGNS.to_h do |status, (sign, words)|
        [status, %(<span class="badge is-#{status}" role="img" aria-label="#{words}">#{sign}</span>)]
      end.freeze

      # @param status [Symbol] of Core::Session::Outcome
      # @return [String] HTML
      def badge(status) = HTML.fetch(status)
    end
  end
end
