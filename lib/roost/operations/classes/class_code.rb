# frozen_string_literal: true

require "securerandom"

module Roost
  module Operations
    # The code of a class: made when it is first wanted, and anew when too many have it.
    class ClassCode
      UNKNOWN = "That class code isn't known. Look at it again, or ask your teacher."

      # @return [Core::Reading] of a Store::Classes::Page
      def self.page(raw)
        code = Core::ClassCode.read(raw)
        page = code && Store::Classes.new.by_code(code)
        page ? Core::Reading.ok(page) : Core::Reading.refused(UNKNOWN)
      end

      # @return [String, nil] nil unless she teaches the class
      def call(account_id, class_id)
        row = Store::Classes.new.find(account_id, class_id)
        row && (row.code || give(class_id))
      end

      # The code there was leads nowhere any more.
      # @return [String, nil] the new one
      def renew(account_id, class_id) = Store::Classes.new.find(account_id, class_id) && give(class_id)

      private

      def give(class_id)
        loop do
          code = Core::ClassCode.make(SecureRandom)
          return code if Store::Classes.new.give_code(class_id, code)
        end
      end
    end
  end
end
