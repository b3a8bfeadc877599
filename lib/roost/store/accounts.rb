# frozen_string_literal: true

module Roost
  module Store
    # Teachers' names. Signing in and up is Rodauth's.
    class Accounts < Repository
      def name(id) = database[:accounts].where(id: id).get(:name)

      def email(id) = database[:accounts].where(id: id).get(:email)

      # The first of all keeps the school.
      # @return [Integer] id
      def create(email:, name:, password_hash:)
        row = { email: email, name: name, password_hash: password_hash }
        database.transaction(savepoint: true) { database[:accounts].insert(**row, keeper: database[:accounts].empty?) }
      rescue Sequel::UniqueConstraintViolation => e
        raise unless e.message.include?("accounts_one_keeper") # another was first, at the same moment

        database[:accounts].insert(**row, keeper: false)
      end

      def change_password(id, password_hash) = database[:accounts].where(id: id).update(password_hash: password_hash)

      def any? = database[:accounts].any?

      # @return [Array<String>] ways to begin that a teacher has used (Operations::Today::WAYS)
      def begun(id) = database[:accounts].where(id: id).get(:begun).to_a

      def note_begun(id, way)
        database[:accounts].where(id: id).exclude(way => Sequel.function(:any, :begun))
                           .update(begun: Sequel.function(:array_append, :begun, way))
      end

      # @return [Array(Integer, String), nil] id and name of the account with that email
      def by_email(email) = database[:accounts].where(Sequel.function(:lower, :email) => email.strip.downcase).get(%i[id name])

      # @return [Integer, nil]
      def id_of(email) = database[:accounts].where(Sequel.function(:lower, :email) => email.downcase).get(:id)
    end
  end
end
