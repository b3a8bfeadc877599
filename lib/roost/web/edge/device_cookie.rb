# frozen_string_literal: true

require "digest"
require "openssl"
require "securerandom"

module Roost
  module Web
    # By what a device is known again: a number the server gave it, which it can't change without being another device. It
    # says nothing of who uses the device. There is one for students, sent to the pages of joining alone, and one for
    # teachers, sent to the page to sign in alone.
    module DeviceCookie
      PATHS = { "roost-device" => %w[/join /seat], "roost-signed-in" => %w[/sign-in] }.freeze
      STUDENT, TEACHER = PATHS.keys
      FOR = 180 * 24 * 3600
      VALUE = /\A(?<id>[\w-]{22})\.(?<seal>\h{32})\z/

      # @param request [Rack::Request]
      # @param name [String] one of PATHS
      # @return [String, nil] what the device is called in the database; nil of one that has none, or none of ours
      def self.of(request, name = STUDENT)
        said = request.cookies[name].to_s.match(VALUE)
        said && Rack::Utils.secure_compare(seal(said[:id]), said[:seal]) ? digest(said[:id]) : nil
      end

      # @param response [#headers]
      # @return [String] as #of, from now on
      def self.give(response, name = STUDENT)
        id = SecureRandom.urlsafe_base64(16)
        about = { value: "#{id}.#{seal(id)}", max_age: FOR, same_site: :lax, httponly: true, secure: Roost.settings.secure? }
        PATHS.fetch(name).each { |path| Rack::Utils.set_cookie_header!(response.headers, name, { path: path, **about }) }
        digest(id)
      end

      def self.seal(id) = OpenSSL::HMAC.hexdigest("SHA256", Roost.settings.session_secret, "device #{id}")[0, 32]

      def self.digest(id) = Digest::SHA256.hexdigest(id)[0, 40]
      private_class_method :seal, :digest
    end
  end
end
