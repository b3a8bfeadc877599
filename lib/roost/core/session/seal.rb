# frozen_string_literal: true

require "base64"
require "digest"
require "openssl"

module Roost
  module Core
    module Session
      # Names single things that were given (a sketch, a card) so that the name says nothing: whose
      # it is, and on which slide, in one block of AES. Whoever holds the secret reads it back
      # without looking anything up. The same thing always has the same name.
      #
      #     name = seal.close(12, "s3", 1)   # the first card of seat 12
      #     seal.open(name).seat_id          # => 12
      class Seal
        # post:: number of a card, 0 for what is no card
        Opened = Struct.new(:seat_id, :post, :digest, keyword_init: true) do
          # Whether it is on this slide.
          def on?(slide_id) = digest == Seal.digest(slide_id)
        end

        BLOCK = "Q>na6"
        LENGTH = 22
        SHAPE = /\A[\w-]{#{LENGTH}}\z/

        def self.digest(slide_id) = Digest::SHA256.digest(slide_id)[0, 6]

        def initialize(secret)
          @key = Digest::SHA256.digest("given #{secret}")[0, 16]
          freeze
        end

        # @return [String] LENGTH characters for an address or an id
        def close(seat_id, slide_id, post = 0)
          Base64.urlsafe_encode64(cipher(:encrypt).update([seat_id, post, Seal.digest(slide_id)].pack(BLOCK)), padding: false)
        end

        # @return [Opened, nil] nil of what can't be such a name; seat and slide may not exist
        def open(name)
          return nil unless name.is_a?(String) && name.match?(SHAPE)

          seat_id, post, digest = cipher(:decrypt).update(Base64.urlsafe_decode64(name)).unpack(BLOCK)
          Opened.new(seat_id: seat_id, post: post, digest: digest).freeze if seat_id < 2**62
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
