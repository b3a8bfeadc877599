# frozen_string_literal: true

require "bundler/setup"
require "zeitwerk"
require_relative "../config/settings"

# Amber Roost: a classroom teacher runs live lessons. The layers below, from
# the rules upwards, are core, store, live, operations and web; docs/ARCHITECTURE.md
# says what may know what.
module Roost
  LOADER = Zeitwerk::Loader.new
  LOADER.push_dir(File.join(__dir__, "roost"), namespace: Roost)
  LOADER.collapse(%w[lesson people].map { |folder| File.join(__dir__, "roost/core", folder) })
  LOADER.collapse(%w[record live sitting].map { |folder| File.join(__dir__, "roost/core/session", folder) })
  LOADER.collapse(%w[lessons sessions seats sittings classes assignments files school grades exports].map do |folder|
    File.join(__dir__, "roost/operations", folder)
  end)
  LOADER.collapse(%w[edge teacher student screen files rendering].map { |room| File.join(__dir__, "roost/web", room) })
  LOADER.ignore(File.join(__dir__, "roost/web/views"))
  LOADER.setup
end
