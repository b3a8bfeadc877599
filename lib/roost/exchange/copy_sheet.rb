# frozen_string_literal: true

module Roost
  module Exchange
    # A student's own copy as PDF, A4: slide by slide what was asked, given, right and why. It is set in a process of its
    # own; formulas stand as they were written.
    module CopySheet
      # Of processor time: sixty slides take two.
      LIMITS = { seconds: 30, output: 60 * 1024 * 1024 }.freeze

      # @param copy [Hash] :title and :about, lines of text; :pages, an Array of Hash: :heading, :texts (Markdown),
      #   :pictures (paths of JPEG files) and :rows, an Array of Hash: :is (a key of Paper::LABELS) with :text, :markdown or
      #   :picture
      # @return [String, nil] PDF; nil when it could not be made
      def self.pdf(copy) = Confined.made("copy", copy, **LIMITS)
    end
  end
end
