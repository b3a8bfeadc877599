# frozen_string_literal: true

require "json"
require "open3"
require "tempfile"
require "tmpdir"

module Roost
  module Exchange
    # Runs another program on a file from outside, with limits on its time, memory and
    # output, so that a hostile file harms nothing but its own import.
    module Confined
      MEMORY = 2 * 1024 * 1024 * 1024
      OUTPUT = 200 * 1024 * 1024
      READER = File.join(Settings::ROOT, "bin/read")
      READERS_GEMS = %w[roo rubyzip nokogiri sanitize rqrcode prawn commonmarker].freeze
      # Of the reader: a sheet of 10 MB takes 150 MB.
      READING = { seconds: 15, memory: 1024 * 1024 * 1024, output: 20 * 1024 * 1024 }.freeze

      # status:: the program's exit status, nil where it was ended
      Done = Struct.new(:success, :status, :output, :complaint, keyword_init: true) do
        # The reason the reader gives for not reading something.
        # @return [String, nil]
        def refusal = status == self.class::REFUSED ? output.dup.force_encoding(Encoding::UTF_8).scrub.strip : nil
      end
      Done::REFUSED = 3

      # @param seconds [Integer] of processor time; twice as much by the clock
      # @param memory [Integer] bytes of address space
      # @param output [Integer] bytes of its output that are kept
      # @param environment [Hash] variables it gets besides the plainest
      # @return [Done] output as bytes
      def self.run(*command, seconds: 30, memory: MEMORY, output: OUTPUT, environment: {})
        limits = { rlimit_cpu: seconds, rlimit_as: memory, rlimit_fsize: OUTPUT, pgroup: true, unsetenv_others: true }
        plain = { "PATH" => ENV.fetch("PATH"), "HOME" => Dir.tmpdir, "LC_ALL" => "C.UTF-8" }
        Open3.popen3(plain.merge(environment), *command, limits) do |input, out, err, process|
          input.close
          told, complaint = [out, err].map { |pipe| Thread.new { all_of(pipe, output) } }
          stop(process) unless process.join(seconds * 2)
          Done.new(success: process.value.success? == true, status: process.value.exitstatus, output: told.value,
                   complaint: complaint.value.scrub).freeze
        end
      end

      # Has a file read by a Ruby of its own (bin/read), with the same gems as this one, as far as it
      # needs them: a Ruby that looks in fewer places, and doesn't look for gems, begins sooner.
      # @param task [String] what to read it as
      # @param limits [Hash] other than READING
      # @return [Done]
      def self.read(task, path, *arguments, **limits)
        run(RbConfig.ruby, "--disable=gems", READER, task, path, *arguments.map(&:to_s),
            environment: { "RUBYLIB" => gems.join(":") }, **READING, **limits)
      end

      # Has something made of a value, by the same Ruby.
      # @param task [String] of bin/read, which is given a file of JSON
      # @param value [Hash]
      # @param limits [Hash] other than READING
      # @return [String, nil] bytes; nil when it could not be made
      def self.made(task, value, **limits)
        Tempfile.create(task) do |file|
          file.write(JSON.generate(value))
          file.flush
          done = read(task, file.path, **limits)
          done.output if done.success
        end
      end

      # @return [Array<String>] where the reader's gems are, and all that these need
      def self.gems
        @gems ||= with_needs(READERS_GEMS).uniq.flat_map(&:full_require_paths).freeze
      end

      def self.with_needs(names)
        found = Gem.loaded_specs.values_at(*names).compact
        found + found.flat_map { |gem| with_needs(gem.runtime_dependencies.map(&:name)) }
      end

      # Everything from a pipe up to a limit; what is beyond it is read and forgotten, so that
      # the program does not wait for us.
      def self.all_of(pipe, most)
        text = +"".b
        while (chunk = pipe.read(65_536))
          text << chunk if text.bytesize < most
        end
        text
      end

      def self.stop(process)
        Process.kill(:KILL, -process.pid)
      rescue Errno::ESRCH
        nil
      end
      private_class_method :gems, :with_needs, :all_of, :stop

      def self.program?(name) = ENV.fetch("PATH").split(":").any? { |folder| File.executable?(File.join(folder, name)) }
    end
  end
end
