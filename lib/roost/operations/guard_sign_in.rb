# frozen_string_literal: true

module Roost
  module Operations
    # Slows down guessing, by account and address together: after a few wrong passwords each further
    # try has to wait, twice as long each time. Where many came from one address, whatever the accounts, each account there has
    # one try before it waits; nobody waits for what was tried at another account. Whoever has signed in to this account from
    # this address before never waits.
    class GuardSignIn
      FREE = 5 # wrong passwords without a wait
      FREE_AN_ADDRESS = 30
      LONGEST = 60 # seconds
      PERIOD = 900

      # @return [Boolean] whether this try has to wait
      def wait?(email, address)
        return false unless counters.read(key("wait", "pair", email, address))

        !Store::SignIns.new.known?(email, address)
      end

      def failed(email, address)
        of_pair, of_address = %w[pair address].map do |what|
          counters.increment(key("wrong", what, email, address), expires_in: PERIOD)
        end
        free = of_address > FREE_AN_ADDRESS ? 1 : FREE
        return if of_pair < free

        counters.write(key("wait", "pair", email, address), 1, expires_in: [2**(of_pair - free), LONGEST].min)
      end

      def succeeded(account_id, email, address)
        %w[wrong wait].each { |name| counters.delete(key(name, "pair", email, address)) }
        Store::SignIns.new.remember(account_id, address)
      end

      private

      def counters = Store::Counters.new

      def key(name, what, email, address)
        "#{name}:#{what}:#{Store::SignIns.digest("#{address} #{email.strip.downcase if what == "pair"}")}"
      end
    end
  end
end
