# frozen_string_literal: true

require "open3"
require "tmpdir"

module Roost
  module Exchange
    # Runs another program on a file from outside, with limits on its time, memory and
    # output, so that a hostile file harms nothing but its own import.
    module Confined
      MEMORY = 2 * 1024 * 1024 * 1024
      OUTPUT = 200 * 1024 * 1024

      Done = Struct.new(:success, :output, :complaint, keyword_init: true)

      # @param seconds [Integer] of processor time; twice as much by the clock
      # @param memory [Integer] bytes of address space
      # @return [Done] output as bytes
      def self.run(*command, seconds: 30, memory: MEMORY)
        limits = { rlimit_cpu: seconds, rlimit_as: memory, rlimit_fsize: OUTPUT, pgroup: true, unsetenv_others: true }
        environment = { "PATH" => ENV.fetch("PATH"), "HOME" => Dir.tmpdir, "LC_ALL" => "C.UTF-8" }
        Open3.popen3(environment, *command, limits) do |input, out, err, process|
          input.close
          output, complaint = [out, err].map { |pipe| Thread.new { all_of(pipe) } }
          stop(process) unless process.join(seconds * 2)
          Done.new(success: process.value.success? == true, output: output.value, complaint: complaint.value.scrub).freeze
        end
      end

      # Everything from a pipe; what is beyond the limit is read and forgotten, so that
      # the program does not wait for us.
      def self.all_of(pipe)
        text = +"".b
        while (chunk = pipe.read(65_536))
          text << chunk if text.bytesize < OUTPUT
        end
        text
      end

      def self.stop(process)
        Process.kill(:KILL, -process.pid)
      rescue Errno::ESRCH
        nil
      end
      private_class_method :all_of, :stop

      def self.program?(name) = ENV.fetch("PATH").split(":").any? { |folder| File.executable?(File.join(folder, name)) }
    end
  end
end
