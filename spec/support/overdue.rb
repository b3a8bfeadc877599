# frozen_string_literal: true

# An example that its time limit could not end (it waits in an `ensure`, say) would hold up all others without a word:
# what every thread is doing is said, and the run ends.
module Overdue
  EXAMPLE = 480 # seconds, after which an example fails
  RUN = EXAMPLE + 120 # after which there is no waiting for it to do so

  # @yield what must not take longer than RUN
  def self.watch(name, &block)
    watcher = Thread.new do
      sleep RUN
      said = Thread.list.map { |thread| ["#{thread.inspect}:", *thread.backtrace].join("\n  ") }
      $stderr.write("\nOverdue: #{name}\n#{said.join("\n")}\n")
      exit!(1)
    end
    Timeout.timeout(EXAMPLE, &block)
  ensure
    watcher.kill
  end
end
