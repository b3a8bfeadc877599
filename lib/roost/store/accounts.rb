# frozen_string_literal: true

module Roost
  module Store
    # Teachers' names. Signing in and up is Rodauth's.
    class Accounts < Repository
      def name(id) = database[:accounts].where(id: id).get(:name)

      # @return [Integer] id
      def create(email:, name:, password_hash:)
        database[:accounts].insert(email: email, name: name, password_hash: password_hash)
      end

      # @return [Array(Integer, String), nil] id and name of the account with that email
      def by_email(email) = database[:accounts].where(Sequel.function(:lower, :email) => email.strip.downcase).get(%i[id name])

      # @return [Integer, nil]
      def id_of(email) = database[:accounts].where(Sequel.function(:lower, :email) => email.downcase).get(:id)
    end
  end
end
