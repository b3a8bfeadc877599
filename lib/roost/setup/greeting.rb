# frozen_string_literal: true

module Roost
  module Setup
    # What whoever starts the program is told: where it is, how to get in, and who else can reach it.
    class Greeting
      # @param sign_in [Hash, nil] of the demo: :email, :password
      # @param first [String, nil] the link for the first account
      # @param course [Boolean] whether the demo's page of a course is there
      def initialize(settings, sign_in: nil, first: nil, course: false)
        @settings = settings
        @sign_in = sign_in
        @first = first
        @course = course
      end

      # @return [Array<String>]
      def lines
        ["Amber Roost: #{settings.base_url}", demo, course, first, reach, "Stop with Ctrl-C."].compact
      end

      private

      attr_reader :settings

      def demo
        @sign_in && "Sign in at #{settings.base_url}/sign-in as #{@sign_in[:email]} with #{@sign_in[:password]}"
      end

      def course = (@course || nil) && "The course page, to which lessons can be posted: #{settings.course_page}"

      def first = @first && "Make the first account here, within an hour: #{@first}"

      def reach
        return if settings.others_reach?

        address = settings.network_address
        "Only this computer reaches it. For phones on your network: ROOST_HOST=0.0.0.0 #{@sign_in ? "bin/demo" : "bin/start"}" \
          "#{", at http://#{address}:#{settings.port}" if address}"
      end
    end
  end
end
