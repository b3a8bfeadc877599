# frozen_string_literal: true

RSpec.describe Roost::Core::Kinds::Writing do
  it "normalises text, drops control characters and keeps inner spaces" do
    expect(writing.read({ "text" => ["  Cafe\u0301  two\u0000\u202E "] }).value).to eq({ "text" => "Café  two" })
  end

  it "has several boxes where asked for, each with its limit" do
    boxes = writing(boxes: ["I saw", "I think"], word_limit: 3)
    value = boxes.read({ "box0" => ["a heron"], "box1" => [""] }).value
    expect(value).to eq({ "text" => "I saw: a heron", "boxes" => ["a heron", ""] })
    expect(boxes.blank_answer?(boxes.read({}).value)).to be(true)
    expect(boxes.read({ "box1" => ["one two three four"] }).reason)
      .to eq("“I think” is 4 words; 3 is the most. Shorten it, then hand it in.")
    expect(writing.edited({ "boxes" => "a,b,c,d,e,f" }).reason).to eq("5 boxes is the most.")
    expect(writing.edited({ "boxes" => "I saw, I think" }).value.boxes).to eq(["I saw", "I think"])
  end

  it "refuses two megabytes, broken bytes and too many words in one sentence" do
    expect(writing.read({ "text" => ["x" * 2_000_000] }).reason).to eq("That answer is too long: 8 000 characters is the most.")
    expect(writing.read({ "text" => ["\xFF\xFE"] }).reason).to eq("That answer is not readable text.")
    expect(writing(word_limit: 2).read({ "text" => ["one two three"] }).reason)
      .to eq("That is 3 words; 2 is the most. Shorten it, then hand it in.")
  end
end
