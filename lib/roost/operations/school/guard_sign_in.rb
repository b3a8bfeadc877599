# frozen_string_literal: true

module Roost
  module Operations
    # Slows down guessing, by account and address together: after a few wrong passwords each further
    # try has to wait, twice as long each time. Where many came from one address, whatever the accounts, each account there has
    # one try before it waits; nobody waits for what was tried at another account. A device from which somebody has signed in
    # to this account before waits only for what was tried from it.
    class GuardSignIn
      FREE = 5 # wrong passwords without a wait
      FREE_AN_ADDRESS = 30
      LONGEST = 60 # seconds
      PERIOD = 900

      # @param device [String, nil] by which it is known (Web::DeviceCookie)
      def initialize(address, device)
        @address = address
        @device = device
      end

      # @return [Boolean] whether this try has to wait
      def wait?(email) = !counters.read(key("wait", "pair", email, source(email))).nil?

      def failed(email)
        source = source(email)
        of_pair = counters.increment(key("wrong", "pair", email, source), expires_in: PERIOD)
        of_address = source == address ? counters.increment(key("wrong", "address", email, address), expires_in: PERIOD) : 0
        free = of_address > FREE_AN_ADDRESS ? 1 : FREE
        return if of_pair < free

        counters.write(key("wait", "pair", email, source), 1, expires_in: [2**(of_pair - free), LONGEST].min)
      end

      # @yieldreturn [String] by what a device is known from now on that wasn't
      def succeeded(account_id, email)
        [address, device].compact.product(%w[wrong wait]) { |source, name| counters.delete(key(name, "pair", email, source)) }
        Store::SignIns.new.remember(account_id, device || yield)
      end

      private

      attr_reader :address, :device

      def counters = Store::Counters.new

      # By what its tries are counted.
      def source(email) = device && Store::SignIns.new.known?(email, device) ? device : address

      def key(name, what, email, source)
        "#{name}:#{what}:#{Store::SignIns.digest("#{source} #{email.strip.downcase if what == "pair"}")}"
      end
    end
  end
end
