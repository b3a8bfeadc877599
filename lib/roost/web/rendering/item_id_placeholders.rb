# frozen_string_literal: true

require "securerandom"

module Roost
  module Web
    # What is rendered once for many seats and yet calls the parts of a question otherwise at each:
    # marks stand in for the names, and are filled in for one seat at a time. Included where
    # students' devices and class screens are rendered for.
    module ItemIdPlaceholders
      # Nobody outside can know it, so nothing that is typed can be taken for a mark.
      NONCE = SecureRandom.hex(8)
      MARK = /#{NONCE}-([^-]+)-/

      # @param ids [Core::Session::ItemIds]
      # @return [String] the fragment as that seat gets it
      def self.fill(html, ids)
        return html unless html.include?(NONCE)

        names = Hash.new { |known, id| known[id] = ids.of(id) }
        html.gsub(MARK) { names[Regexp.last_match(1)] }
      end

      def item_id(id) = "#{NONCE}-#{id}-"
    end
  end
end
