# frozen_string_literal: true

# Runs specs beside a database cluster of its own, for bin/spread: `spec/run.rb FOLDER ARGUMENT…`, the arguments RSpec's.
# Those that are given the same folder share the files between them.
require "json"
require "roost"
require "rspec/core"

# Takes file after file of those that no other has taken, first those that took longest.
class Sharing < RSpec::Core::Runner
  FOLDER = ARGV.shift
  TIMES = JSON.parse(File.read(File.join(__dir__, "times.json")))

  # A group of examples that another may run.
  module Shared
    def run(reporter) = Sharing.mine?(metadata[:file_path]) ? super : true
  end

  # @param file [String]
  # @return [Boolean] whether it is taken by this process, now or before
  def self.mine?(file)
    (@mine ||= {}).fetch(file) { @mine[file] = free?(File.join(FOLDER, file.tr("/", "-"))) }
  end

  def self.free?(mark)
    File.new(mark, File::WRONLY | File::CREAT | File::EXCL).close || true
  rescue Errno::EEXIST
    false
  end
  private_class_method :free?

  def run_specs(groups)
    longest = groups.sort_by { |group| -TIMES.fetch(group.metadata[:file_path].delete_prefix("./"), 1.0) }
    super(longest.each { |group| group.extend(Shared) })
  end
end

# What is written in tests need not outlive the machine, so a database of their own waits for no disk; a server of
# somebody's own (DATABASE_URL) is left as it is.
exit(Roost::Setup::Cluster.new(Roost.settings).use do |own|
  Roost::Store::Database.migrate
  no_disk = own ? ["ALTER SYSTEM SET fsync = off", "SELECT pg_reload_conf()"] : []
  no_disk.each { |sql| Roost::Store::Database.connection.run(sql) }
  Roost::Store::Database.disconnect
  Process.wait2(fork { exit(Sharing.run(ARGV)) }).last.success? == true
end)
