# frozen_string_literal: true

module Roost
  module Web
    # The pattern for a sheet of questions, to be filled in.
    class Sheets < TeacherApp
      get "/pattern.csv" do
        content_type "text/csv; charset=utf-8"
        attachment "questions.csv"
        Exchange::QuestionSheet.new(nil).pattern_csv
      end

      get "/pattern.xlsx" do
        content_type Additions::XLSX
        attachment "questions.xlsx"
        Exchange::QuestionSheet.new(nil).pattern_xlsx
      end
    end
  end
end
