# frozen_string_literal: true

require "que"

module Roost
  module Jobs
    # Turns the pages of an imported file into slides. Kept in the database until it is
    # done: a worker that is killed leaves it to the next one, which goes on at the page
    # that was not there yet.
    class ImportPages < Que::Job
      TRIES = 4
      GIVEN_UP = "Something went wrong with this file. Save it again as PDF and retry."

      # @param import_id [Integer]
      def run(import_id)
        Operations::BringPagesIn.new.call(import_id)
        finish
      end

      # Tried again a few times, then given up with a word to the teacher.
      def handle_error(error)
        return super if error_count < TRIES

        Operations::BringPagesIn.new.give_up(que_attrs[:args].first, GIVEN_UP)
        expire
      end
    end
  end
end
