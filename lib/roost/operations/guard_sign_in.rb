# frozen_string_literal: true

module Roost
  module Operations
    # Slows down guessing, by account and address together: after a few wrong passwords each further
    # try has to wait, twice as long each time. Many wrong ones from one address, whatever the account,
    # make it wait, too. Whoever has signed in to this account from this address before never waits.
    class GuardSignIn
      FREE = 5 # wrong passwords without a wait
      FREE_AN_ADDRESS = 30
      LONGEST = 60 # seconds
      PERIOD = 900

      # @return [Boolean] whether this try has to wait
      def wait?(email, address)
        return false unless %w[pair address].any? { |what| counters.read(key("wait", what, email, address)) }

        !Store::SignIns.new.known?(email, address)
      end

      def failed(email, address)
        { "pair" => FREE, "address" => FREE_AN_ADDRESS }.each do |what, free|
          count = counters.increment(key("wrong", what, email, address), expires_in: PERIOD)
          next if count < free

          counters.write(key("wait", what, email, address), 1, expires_in: [2**(count - free), LONGEST].min)
        end
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
