# frozen_string_literal: true

# How much work something is, without a clock: the lines of Ruby that are run and the methods
# written in C that are called, here and in the libraries.
module Counting
  def self.steps(&block)
    steps = 0
    counting = TracePoint.new(:line, :c_call) { steps += 1 }
    counting.enable(target_thread: Thread.current, &block)
    steps
  end
end
