# frozen_string_literal: true

module Roost
  module Operations
    # Makes the first account, which keeps the school, by a link that is printed where the program was started: so it is made
    # by whoever runs the machine, needs no mail, and nobody else can be first.
    class FirstAccount
      # @return [String, nil] a link that is good for an hour, instead of any before; nil where there is an account
      def link
        key = Store::School.new.set_up_key
        key && "#{Roost.settings.base_url}/set-up?key=#{key}"
      end

      def good?(key) = Store::School.new.set_up?(key)

      # @param form [Hash] "school", "time_zone", "name", "email"
      # @return [Core::Reading] of Hash, for #call
      def read(form)
        school = Store::School.new.settings.to_form.merge("name" => form["school"], "time_zone" => form["time_zone"])
        Store::School.new.read(school).and_then do |settings|
          Core::NewTeacher.read(form).map { |teacher| { teacher: teacher, school: settings } }
        end
      end

      # @param about [Hash] that was read
      # @return [String, nil] the email of the account; nil when the link is not good any more
      def call(key, about, password_hash)
        school = Store::School.new
        school.transaction do
          next nil unless school.take_set_up?(key)

          school.change(about.fetch(:school))
          Store::Accounts.new.create(**about.fetch(:teacher), password_hash: password_hash)
          about.dig(:teacher, :email)
        end
      end
    end
  end
end
