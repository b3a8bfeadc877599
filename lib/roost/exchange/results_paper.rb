# frozen_string_literal: true

module Roost
  module Exchange
    # The results of a session as PDF, A4 or Letter: an overview, students by questions, each student on pages of their own with a
    # bookmark, and drawings as contact sheets. It is set in a process of its own.
    module ResultsPaper
      # Of processor time: a class of thirty with forty questions takes eight.
      LIMITS = { seconds: 120, output: 150 * 1024 * 1024 }.freeze

      # @param results [Hash] :title, :about and :size ("A4" or "LETTER"); :overview, an Array of [label, value]; :grid, a Hash of
      #   :heads and :rows (name, signs, share), or nil; :students, an Array of Hash: :name, :line and :rows (Hash of :question,
      #   :sign, :given, :right, :comment); :sheets, an Array of Hash: :question and :pictures (path and name)
      # @return [String, nil] PDF; nil when it could not be made
      def self.pdf(results) = Confined.made("results", results, **LIMITS)
    end
  end
end
