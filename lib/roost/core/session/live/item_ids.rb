# frozen_string_literal: true

require "openssl"

module Roost
  module Core
    module Session
      # What the parts of a question are called at one seat. The ids they have in the lesson stand
      # in the order in which a teacher wrote them, which may be the right one; so a seat gets a
      # keyed hash of session, seat, slide and part instead, and the server reads it back.
      class ItemIds
        # For those who may know: the preview, specs, simulated students.
        PLAIN = Object.new.tap do |plain|
          def plain.item(handle) = handle
          def plain.card(handle) = handle
          def plain.of(id) = id
        end.freeze

        LENGTH = 11

        # @param secret [String] known to the server only
        # @param slide [Slide] with the question
        def initialize(secret:, session_id:, seat_id:, slide:)
          @secret = secret
          @place = "handles #{session_id} #{seat_id} #{slide.id}"
          @slide = slide
        end

        # @param id [String] of a part of the question
        # @return [String]
        def of(id) = Core::UrlText.of(OpenSSL::HMAC.digest("SHA256", key, id))[0, LENGTH]

        # @return [String, nil] the id that is called so at this seat
        def item(handle) = (@ids ||= @slide.prompt.part_ids.to_h { |id| [of(id), id] })[handle]

        # @return [String, nil] the key of a card that is called so
        def card(handle)
          named = (@encrypted ||= EncryptedId.new(@secret)).decode(handle)
          "#{named.seat_id}-p#{named.post}" if named&.on?(@slide.id)
        end

        private

        # Worked out when it is first needed: most questions call nothing otherwise.
        def key = @key ||= OpenSSL::HMAC.digest("SHA256", @secret, @place)
      end
    end
  end
end
