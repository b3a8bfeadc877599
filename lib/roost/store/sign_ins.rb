# frozen_string_literal: true

require "digest"
require "securerandom"

module Roost
  module Store
    # Signing in and up, beside what Rodauth does: from which devices a teacher has signed in, which
    # of her sign-ins stand, and accounts whose mail has not been answered yet.
    class SignIns < Repository
      # How long a device is remembered, and how long a link to make an account is good, in days.
      REMEMBERED = 180
      LINK_GOOD = 1

      def self.digest(text) = Digest::SHA256.hexdigest(text)

      # Whether somebody has signed in to this account from this device before.
      def known?(email, device)
        database[:sign_in_devices].join(:accounts, id: :account_id)
                                  .where(Sequel.function(:lower, :email) => email.strip.downcase,
                                         digest: SignIns.digest(device)).any?
      end

      def remember(account_id, device)
        now = Sequel.function(:clock_timestamp)
        database[:sign_in_devices].insert_conflict(target: %i[account_id digest], update: { last_at: now })
                                  .insert(account_id: account_id, digest: SignIns.digest(device), last_at: now)
      end

      # @return [Array<Hash>] a teacher's sign-ins, latest used first: :session_id, :device, :created_at, :last_use
      def of(account_id) = database[:account_active_session_keys].where(account_id: account_id).reverse(:last_use).all

      # @param but [String, nil] the one that stays
      def finish(account_id, session_id: nil, but: nil)
        all = database[:account_active_session_keys].where(account_id: account_id)
        all = all.where(session_id: session_id) if session_id
        all.exclude(session_id: but.to_s).delete
      end

      # Whether a sign-in stands, is not older than it may be, and was noted to be used a minute ago or later.
      # @param longest [Integer] seconds that one is good for
      def used_lately?(account_id, session_id, longest:)
        used = prepared(:sign_in_used_lately) do
          database[:account_active_session_keys].where(account_id: :$account_id, session_id: :$session_id)
                                                .where(Sequel.lit("last_use > now() - interval '1 minute'"))
                                                .where(Sequel.lit("created_at > now() - make_interval(secs => ?)", :$longest))
                                                .select(:session_id)
        end
        used.call(account_id: account_id, session_id: session_id.to_s, longest: longest).any?
      end

      # @return [Array<String>] those of these sign-ins that stand
      def standing(session_ids) = database[:account_active_session_keys].where(session_id: session_ids).select_map(:session_id)

      # @return [String] the key that makes the account
      # @param invitation [String, nil] key of one
      def keep_sign_up(email:, name:, invitation: nil)
        key = SecureRandom.urlsafe_base64(24)
        database[:sign_ups].insert(digest: SignIns.digest(key), email: email, name: name, invitation: invitation)
        key
      end

      # @return [Hash, nil] :email, :name and :invitation of a key that is still good
      def sign_up(key)
        fresh = Sequel.lit("created_at > now() - make_interval(days => ?)", LINK_GOOD)
        database[:sign_ups].where(digest: SignIns.digest(key.to_s)).where(fresh).select(:email, :name, :invitation).first
      end

      def forget_sign_ups(email) = database[:sign_ups].where(Sequel.function(:lower, :email) => email.downcase).delete
    end
  end
end
