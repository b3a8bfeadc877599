# frozen_string_literal: true

require "json"

module Roost
  module Operations
    # Everything that is kept about a student, for other programs.
    class StudentJson < StudentRecord
      TYPE = "application/json"

      # @param subject [Subject]
      # @return [String]
      def file(subject, &progress)
        JSON.pretty_generate(StudentDocument.new(subject) { |_, value| { "value" => value } }.to_h(progress))
      end
    end
  end
end
