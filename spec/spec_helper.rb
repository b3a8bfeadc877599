# frozen_string_literal: true

ENV["ROOST_ENV"] = "test"
$LOAD_PATH.unshift(File.expand_path("../lib", __dir__))
require "roost"
require "capybara/rspec/matchers"
require "nokogiri" # before libvips, which brings a libxml2 of its own
require "prop_check"
require "timeout"
Dir[File.join(__dir__, "support/*.rb")].each { |file| require file }

RSpec.configure do |config|
  config.disable_monkey_patching!
  config.order = :random
  Kernel.srand config.seed
  config.include Builders
  config.include Keeping, file_path: %r{spec/(store|operations|web|live|browser)/}
  config.include Rack::Test::Methods, file_path: %r{spec/web/}
  config.include Front, file_path: %r{spec/web/}
  config.include Capybara::RSpecMatchers, file_path: %r{spec/browser/}
  config.include Classroom, file_path: %r{spec/browser/}
  Sequel::Database.prepend(Changes)
  # What waits for something that never comes fails, and says where it was.
  config.around { |example| Overdue.watch(example.location) { example.run } }
  config.after { expect(Changes::FROM_WEB.shift(100)).to eq([]) }
  config.filter_run_when_matching :focus
end
