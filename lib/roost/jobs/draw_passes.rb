# frozen_string_literal: true

require "que"

module Roost
  module Jobs
    # Draws a sheet of passes. Tried twice, then given up with a word to the teacher.
    class DrawPasses < Que::Job
      # @param id [Integer] of the sheet
      def run(id)
        Operations::DrawPasses.new.call(id)
        finish
      end

      def handle_error(error)
        return super if error_count < 2

        Operations::DrawPasses.new.give_up(que_attrs[:args].first)
        expire
      end
    end
  end
end
