# frozen_string_literal: true

require "que"

module Roost
  module Jobs
    # Makes a file. Tried twice, then given up with a word to the teacher.
    class MakeExport < Que::Job
      # @param id [Integer] of the export
      def run(id)
        Operations::MakeExport.new.call(id)
        finish
      end

      def handle_error(error)
        return super if error_count < 2

        Operations::MakeExport.new.give_up(que_attrs[:args].first)
        expire
      end
    end
  end
end
