# frozen_string_literal: true

require "digest"
require "openssl"

module Roost
  module Core
    module Session
      # Names single things that were given (a sketch, a card) so that the name says nothing: whose
      # it is, and on which slide, in one block of AES. Whoever holds the secret reads it back
      # without looking anything up. The same thing always has the same name.
      #
      #     name = ids.encode(12, "s3", post: 1)   # the first card of seat 12
      #     ids.decode(name).seat_id               # => 12
      class EncryptedId
        # post:: number of a card, 0 for what is no card; attempt:: 0 for the one that counts
        Decoded = Struct.new(:seat_id, :post, :attempt, :digest, keyword_init: true) do
          # Whether it is on this slide.
          def on?(slide_id) = digest == EncryptedId.digest(slide_id)
        end

        # Seat (its upper part and its lower), card, attempt, slide.
        BLOCK = "nNnna6"
        LENGTH = 22
        SHAPE = /\A[\w-]{#{LENGTH}}\z/

        def self.digest(slide_id) = Digest::SHA256.digest(slide_id)[0, 6]

        def initialize(secret)
          @key = Digest::SHA256.digest("given #{secret}")[0, 16]
          freeze
        end

        # @param seat_id [Integer] below 2^48
        # @return [String] LENGTH characters for an address or an id
        def encode(seat_id, slide_id, post: 0, attempt: 0)
          block = [*seat_id.divmod(2**32), post, attempt, EncryptedId.digest(slide_id)].pack(BLOCK)
          Core::UrlText.of(cipher(:encrypt).update(block))
        end

        # @return [Decoded, nil] nil of what can't be such a name; seat and slide may not exist
        def decode(name)
          return nil unless name.is_a?(String) && name.match?(SHAPE)

          upper, lower, post, attempt, digest = cipher(:decrypt).update(Core::UrlText.bytes(name)).unpack(BLOCK)
          Decoded.new(seat_id: (upper * (2**32)) + lower, post: post, attempt: attempt, digest: digest).freeze
        end

        private

        def cipher(way)
          OpenSSL::Cipher.new("aes-128-ecb").public_send(way).tap do |cipher|
            cipher.key = @key
            cipher.padding = 0
          end
        end
      end
    end
  end
end
