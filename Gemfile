# frozen_string_literal: true

source "https://rubygems.org"

ruby ">= 3.1"

# Web
gem "erubi"
gem "puma", "~> 8.0"
gem "rack-attack"
gem "rack-session"
gem "roda"
gem "rodauth"
gem "sinatra", "~> 4.0"
gem "tilt"

# Store
gem "json", "~> 2.10" # que 2.4 does not know JSON 3
gem "pg"
gem "que", "~> 2.4"
gem "sequel"
gem "sequel_pg", require: false

# Accounts and mail
gem "argon2"
gem "mail"

# Times of the school
gem "tzinfo"
gem "tzinfo-data"

# Part of Ruby until 3.3; a gem of its own from 3.4 on
gem "bigdecimal"
gem "csv"

# Content
gem "commonmarker", "~> 0.23.0" # 2.x has another API, and needs Rust to build
gem "icalendar", "~> 2.11"
gem "marcel"
gem "nokogiri"
gem "prawn", "~> 2.5"
gem "rqrcode"
gem "sanitize"
gem "shrine"
gem "unicode-confusable"

# Sheets
gem "caxlsx", "~> 4.5"
gem "roo", "~> 2.10"
gem "rubyzip", "~> 2.4" # roo 2.10 takes no 3

# Structure and live
gem "nio4r"
gem "zeitwerk"

group :development, :test do
  gem "capybara"
  gem "erb_lint", require: false
  gem "prop_check"
  gem "rack-test"
  gem "rspec"
  gem "rubocop", require: false
  gem "ruby-vips", require: false
  gem "selenium-webdriver"
  gem "simplecov", require: false
  gem "yard", require: false
end
